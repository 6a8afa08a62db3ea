import type { Piece } from '../program-pieces.ts';

/** Lines that mean nothing to the machine. */
const empty = /^\s*(\([^()]*\)\s*)?$/;

/**
 * Turns pieces of a program into what is sent at a time in the plain language: comments are left out, and a wait with the
 * beam on goes out as one, with the line that puts it off. So whatever happens to the line, no
 * machine stands with its beam on and waits for more.
 */
export async function* plainPieces(pieces: AsyncIterable<Piece>): AsyncGenerator<Piece> {
  let lit: string | null = null;
  for await (const piece of pieces) {
    const { line, text, seconds } = piece;
    if (empty.test(text)) continue;
    if (text.startsWith('M3')) lit = text;
    else if (lit !== null && text.startsWith('G4')) yield { line, text: `${lit}\n${text}\nM4`, seconds };
    else if (lit !== null && text === 'M4') lit = null;
    else yield piece;
  }
}
