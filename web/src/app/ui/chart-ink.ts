/** The colours of the page, for a canvas that knows no style sheets. */
export interface Ink {
  readonly petrol: string;
  readonly ground: string;
  readonly ink: string;
  readonly soft: string;
  readonly slate: string;
  readonly line: string;
  readonly brass: string;
  readonly ochre: string;
  readonly words: string;
  readonly figures: string;
}

export function inkOf(element: HTMLElement): Ink {
  const style = getComputedStyle(element);
  // A custom property comes back as written, light-dark() and all; a real property comes back resolved.
  const probe = document.createElement('span');
  element.parentElement!.append(probe);
  const colour = (name: string): string => {
    probe.style.color = `var(--${name})`;
    return getComputedStyle(probe).color;
  };
  const ink = {
    petrol: colour('petrol'),
    ground: colour('ground'),
    ink: colour('ink'),
    soft: colour('ink-soft'),
    slate: colour('slate'),
    line: colour('line'),
    brass: colour('brass'),
    ochre: colour('ochre'),
    words: style.getPropertyValue('--words'),
    figures: style.getPropertyValue('--figures'),
  };
  probe.remove();
  return ink;
}

export const faint = (colour: string, share: number): string => colour.replace('rgb(', 'rgba(').replace(')', `, ${share})`);
