import { keyOf, type CommandId } from './list'

/** The key of a command, on the button that does the same. */
export const Key = ({ of }: { of: CommandId }) => <kbd>{keyOf(of)}</kbd>
