import type { Command, CommandName, CommandOf } from './commands';

/** How each kind of command shows in a view before the server has answered it; kinds that are left out do not show there. */
export type Shows<View> = { readonly [Name in CommandName]?: (view: View, command: CommandOf<Name>) => View };

/**
 * A view with commands laid over it, in the order they were entered. It is
 * made anew from what the server said, so a command is undone by leaving it
 * out: nothing has to be put back.
 */
export function overlay<View>(view: View, commands: readonly Command[], shows: Shows<View>): View {
  return commands.reduce((shown, command) => {
    const show = shows[command.route] as ((view: View, command: Command) => View) | undefined;
    return show ? show(shown, command) : shown;
  }, view);
}
