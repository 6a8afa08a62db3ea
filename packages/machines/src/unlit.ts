import type { Program, ProgramLine } from './driver.ts';

/** A word that lights the beam, or gives it power: M3, M4, and any S but 0. */
const lights = /M0*[34](?![\d.])|S(?!0*(?:\.0*)?(?![\d.]))/i;

/** The lines of a program as they are sent: of one that is to stay unlit, none that could light the beam goes out. */
export function linesToSend(program: Program): AsyncIterable<ProgramLine> {
  return program.isUnlit ? unlitOnly(program.open()) : program.open();
}

/** @throws Error at the first line that could light the beam */
async function* unlitOnly(lines: AsyncIterable<ProgramLine>): AsyncGenerator<ProgramLine> {
  for await (const line of lines) {
    if (lights.test(line.text))
      throw new Error(`“${line.text}” would light the beam of a program that is to stay unlit`);
    yield line;
  }
}
