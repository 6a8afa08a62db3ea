/** An id that no other item has. */
export const newId = (): string => `i${crypto.randomUUID().slice(0, 12)}`;
