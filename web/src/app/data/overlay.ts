import type { Command, CommandOf, Place, ShownIn } from './commands';

/** How each kind of command that shows in a place does so before the server has answered it: all that the registry names, and no other. */
export type Shows<At extends Place, View> = { readonly [Name in ShownIn<At>]: (view: View, command: CommandOf<Name>) => View };

/**
 * A view with commands laid over it, in the order they were entered. It is
 * made anew from what the server said, so a command is undone by leaving it
 * out: nothing has to be put back.
 */
export function overlay<At extends Place, View>(view: View, commands: readonly Command[], shows: Shows<At, View>): View {
  return commands.reduce((shown, command) => {
    const show = (shows as unknown as Partial<Record<string, (view: View, command: Command) => View>>)[command.route];
    return show ? show(shown, command) : shown;
  }, view);
}
