/** The parts of what is made of two outlines of the operator's own. */
export const partIds: readonly string[] = ['first', 'second'];
