import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** A PDF as a second reader sees it: the text of each page, its language, and whether it has a structure. */
export async function readPdf(bytes: Uint8Array) {
  const document = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  try {
    const pages: string[] = [];
    const tags = new Set<string>();
    for (let number = 1; number <= document.numPages; number += 1) {
      const page = await document.getPage(number);
      const { items } = await page.getTextContent();
      pages.push(items.map((item) => ('str' in item ? item.str + (item.hasEOL ? '\n' : '') : '')).join(''));
      const walk = (node: unknown): void => {
        const { role, children = [] } = node as { role?: string; children?: unknown[] };
        if (role) tags.add(role);
        children.forEach(walk);
      };
      const tree: unknown = await page.getStructTree();
      if (tree) walk(tree);
    }
    const { info } = await document.getMetadata();
    const first = await document.getPage(1);
    return {
      pages,
      tags,
      info: info as { readonly Title?: string; readonly Language?: string },
      size: first.view.slice(2) as [number, number],
      outline: ((await document.getOutline()) ?? []).map(({ title }) => title),
    };
  } finally {
    await document.destroy();
  }
}
