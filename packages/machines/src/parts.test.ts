import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ProgramLine } from './driver.ts';
import { LineFraming } from './framing.ts';
import { Liveness } from './liveness.ts';
import { ProgramFeed } from './program-feed.ts';
import { type Piece, programPieces } from './program-pieces.ts';
import { linesToSend } from './unlit.ts';
import { WordAnswers } from './word-answers.ts';

async function* linesOf(lines: readonly ProgramLine[]): AsyncGenerator<ProgramLine> {
  yield* lines;
}
/** Pieces with the numbers of their lines before them. */
const piecesOf = async (...lines: ProgramLine[]): Promise<Omit<Piece, 'line'>[]> => {
  const pieces: Omit<Piece, 'line'>[] = [];
  for await (const { line, text, seconds } of programPieces(linesOf(lines))) {
    pieces.push({ text: `N${line} ${text}`, seconds });
  }
  return pieces;
};

describe('framing', () => {
  test('gives the same lines however the stream is parted', () => {
    const words = fc.array(fc.string({ unit: fc.constantFrom('a', 'b', ' ', '{') }), { maxLength: 12 });
    fc.assert(
      fc.property(words, fc.array(fc.nat(40), { maxLength: 12 }), (lines, cuts) => {
        const whole = Buffer.from(lines.map((line) => `${line}\n`).join(''), 'latin1');
        const framing = new LineFraming(1000);
        const places = [0, ...cuts.map((cut) => Math.min(cut, whole.length)).toSorted((a, b) => a - b), whole.length];
        const got = places.slice(1).flatMap((to, i) => framing.push(whole.subarray(places[i], to)));
        expect(got).toEqual(lines);
      }),
    );
  });

  test('bounds a line without an end, and goes on after it', () => {
    const framing = new LineFraming(100);
    for (let i = 0; i < 1000; i++) expect(framing.push(Buffer.alloc(64, 120))).toEqual([]);
    expect(framing.push(Buffer.from('x\r\nok\r\nhal'))).toEqual(['ok']);
    expect(framing.dropped).toBe(1);
    framing.clear();
    expect(framing.push(Buffer.from('f\n'))).toEqual(['f']);
    expect(framing.push(Buffer.from(`${'y'.repeat(100)}\n${'y'.repeat(101)}\n`))).toEqual(['y'.repeat(100)]);
    expect(framing.dropped).toBe(2);
  });
});

describe('liveness', () => {
  test('counts what passed while this process was awake, and no more for a long stop', () => {
    const liveness = new Liveness(100);
    expect([0, 60, 120, 5120, 5180].map((now) => liveness.tick(now))).toEqual([0, 60, 60, 100, 60]);
    expect(liveness.silentMs).toBe(280);
    liveness.heard();
    expect(liveness.silentMs).toBe(0);
    expect(liveness.tick(5000)).toBe(0);
    // How late it is when it first looks says nothing.
    expect(new Liveness(100).tick(5000)).toBe(0);
  });
});

describe('words', () => {
  test('are answered by number, in whatever order, and each once', async () => {
    const answers = new WordAnswers();
    const said: number[] = [];
    const first = answers.ask((number) => said.push(number), 100);
    const second = answers.ask((number) => said.push(number), 100);
    expect(answers.answer(said[1], 'two')).toBe(true);
    expect(answers.answer(said[0], 'one')).toBe(true);
    expect(await Promise.all([first, second])).toEqual(['one', 'two']);
    expect(answers.answer(said[0], 'again')).toBe(false);
  });

  test('end when their time is up, and when the line breaks', async () => {
    const answers = new WordAnswers();
    let isOver = false;
    const late = answers
      .ask(() => {}, 100)
      .finally(() => {
        isOver = true;
      });
    answers.pass(99);
    await Promise.resolve();
    await Promise.resolve();
    expect(isOver).toBe(false);
    const other = answers.ask(() => {}, 100);
    answers.pass(1);
    await expect(late).rejects.toMatchObject({ code: 'no-answer' });
    answers.breakOff();
    await expect(other).rejects.toMatchObject({ code: 'machine-away' });
  });

  test('that come after that are nobody’s', async () => {
    const answers = new WordAnswers();
    const said: number[] = [];
    const ask = () => answers.ask((number) => said.push(number), 100).catch(() => {});
    const late = ask();
    answers.pass(100);
    expect(answers.answer(said[0], 'late')).toBe(false);
    const lost = ask();
    answers.breakOff();
    expect(answers.answer(said[1], 'late')).toBe(false);
    await Promise.all([late, lost]);
  });
});

describe('pieces', () => {
  test('number the lines of a program, and leave what is short as it is', async () => {
    expect(await piecesOf({ text: 'M4 S0', seconds: 0 }, { text: 'G0 X1 Y2', seconds: 9 })).toEqual([
      { text: 'N1 M4 S0', seconds: 0 },
      { text: 'N2 G0 X1 Y2', seconds: 0 },
    ]);
  });

  test('cut a long burning move along its line, with its words on the first piece', async () => {
    const pieces = await piecesOf({ text: 'G0 X10 Y-5', seconds: 1 }, { text: 'G1 X40 Y-2 F600 S30', seconds: 1.5 });
    expect(pieces.slice(1)).toEqual([
      { text: 'N1 G1 X20 Y-4 F600 S30', seconds: 0.5 },
      { text: 'N1 G1 X30 Y-3', seconds: 0.5 },
      { text: 'N2 G1 X40 Y-2', seconds: 0.5 },
    ]);
  });

  test('are the same of moves that are said by their new words alone', async () => {
    const said = ['G0X1Y2', 'G1X3F600S0', 'X5S30', 'S0X6', 'Y4S7', 'G0X9', 'Y8'];
    const pieces = await piecesOf(...said.map((text) => ({ text, seconds: 0.8 })));
    expect(pieces.map(({ text, seconds }) => [text, seconds])).toEqual([
      ['N1 G0X1Y2', 0],
      ['N1 G1 X2 Y2 F600 S0', 0.4],
      ['N2 G1 X3 Y2', 0.4],
      ['N2 G1 X4 Y2 S30', 0.4],
      ['N3 G1 X5 Y2', 0.4],
      ['N3 G1 X5.5 Y2 S0', 0.4],
      ['N4 G1 X6 Y2', 0.4],
      ['N4 G1 X6 Y3 S7', 0.4],
      ['N5 G1 X6 Y4', 0.4],
      ['N6 G0X9', 0],
      ['N7 Y8', 0],
    ]);
  });

  test('cut a long arc along itself, around the same centre', async () => {
    const pieces = await piecesOf(
      { text: 'G0X10Y0', seconds: 0 },
      { text: 'G3X-10Y0I-10J0F600S30', seconds: 2 },
      { text: 'X10Y0I10J0', seconds: 0.9 },
      { text: 'G2X0Y10I-10J0', seconds: 1.5 },
    );
    expect(pieces.slice(1).map(({ text }) => text)).toEqual([
      'N1 G3 X7.071 Y7.071 I-10 J0 F600 S30',
      'N1 G3 X0 Y10 I-7.071 J-7.071',
      'N1 G3 X-7.071 Y7.071 I0 J-10',
      'N2 G3 X-10 Y0 I7.071 J-7.071',
      'N2 G3 X0 Y-10 I10 J0',
      'N3 G3 X10 Y0 I0 J10',
      // Clockwise it is three quarters of a turn.
      'N3 G2 X0 Y-10 I-10 J0',
      'N3 G2 X-10 Y0 I0 J10',
      'N4 G2 X0 Y10 I10 J0',
    ]);
    expect(pieces.slice(-3).map(({ seconds }) => seconds)).toEqual([0.5, 0.5, 0.5]);
  });

  test('part a long wait, and leave a move whose start is not known', async () => {
    const pieces = await piecesOf({ text: 'G1 X4 Y4 F9', seconds: 4 }, { text: 'G4 P1.2', seconds: 1.2 });
    expect(pieces.map(({ text }) => text)).toEqual(['N1 G1 X4 Y4 F9', 'N1 G4 P0.4', 'N1 G4 P0.4', 'N2 G4 P0.4']);
  });

  test('end where the program ends, take as long, and are never longer than half a second', async () => {
    const number = fc.integer({ min: -50_000, max: 50_000 }).map((n) => n / 1000);
    const move = fc.record({ x: number, y: number, seconds: fc.double({ min: 0, max: 30, noNaN: true }) });
    await fc.assert(
      fc.asyncProperty(fc.array(move, { minLength: 1, maxLength: 8 }), async (moves) => {
        const lines = moves.map(({ x, y, seconds }) => ({ text: `G1 X${x} Y${y}`, seconds }));
        const pieces = await piecesOf({ text: 'G0 X0 Y0', seconds: 0 }, ...lines);
        expect(Math.max(...pieces.map(({ seconds }) => seconds))).toBeLessThanOrEqual(0.5 + 1e-9);
        const total = (all: readonly { seconds: number }[]) => all.reduce((sum, { seconds }) => sum + seconds, 0);
        expect(total(pieces)).toBeCloseTo(total(lines), 6);
        const last = pieces.filter(({ text }) => text.startsWith(`N${lines.length + 1} `));
        expect(last).toHaveLength(1);
        expect(last[0].text).toContain(lines.at(-1)?.text.replace('G1 ', '') ?? '?');
        expect(pieces.map(({ text }) => Number(/^N(\d+)/.exec(text)?.[1]))).toEqual(
          pieces.map(({ text }) => Number(/^N(\d+)/.exec(text)?.[1])).toSorted((a, b) => a - b),
        );
      }),
      { numRuns: 60 },
    );
  });
});

describe('the feed', () => {
  const piecesIn = (lines: readonly ProgramLine[]) => programPieces(linesOf(lines));
  const even = Array.from({ length: 10 }, (_, i) => ({ text: `G1 X${i} Y0`, seconds: 0.4 }));
  const take = async (feed: ProgramFeed) => {
    const texts: string[] = [];
    while (feed.wants) {
      const piece = await feed.next();
      if (piece) texts.push(piece.text);
    }
    return texts;
  };

  test('gives no more than burns within its window, and more as that is done', async () => {
    const feed = new ProgramFeed(piecesIn(even), 1);
    expect(await take(feed)).toHaveLength(3);
    feed.done(1);
    expect(await take(feed)).toEqual(['G1 X3 Y0']);
    feed.done(4);
    expect(await take(feed)).toHaveLength(3);
    expect([feed.given, feed.exhausted]).toEqual([7, false]);
    feed.done(9);
    expect(await take(feed)).toHaveLength(3);
    feed.done(10);
    expect(await take(feed)).toEqual([]);
    expect([feed.given, feed.exhausted]).toEqual([10, true]);
  });

  test('goes on after what the machine has taken, and counts what of that is not done', async () => {
    const feed = new ProgramFeed(piecesIn(even), 1, 6, 4);
    expect(await take(feed)).toEqual(['G1 X6 Y0']);
    expect(feed.given).toBe(7);
    feed.done(6);
    expect(await take(feed)).toHaveLength(2);
  });

  test('gives nothing more when what waits is just as much as may', async () => {
    const halves = Array.from({ length: 6 }, (_, i) => ({ text: `G1 X${i} Y0`, seconds: 0.5 }));
    const feed = new ProgramFeed(piecesIn(halves), 1);
    expect(await take(feed)).toHaveLength(2);
    // What the machine has done beyond what it was given counts for nothing.
    feed.done(9);
    expect([feed.given, feed.wants]).toEqual([2, true]);
    expect(await take(feed)).toHaveLength(2);
  });

  test('ends at once when it is closed, and lets go of the program', async () => {
    let isOpen = false;
    async function* opened() {
      isOpen = true;
      try {
        yield* even;
      } finally {
        isOpen = false;
      }
    }
    const feed = new ProgramFeed(programPieces(opened()), 1);
    await feed.next();
    expect([isOpen, feed.wants]).toEqual([true, true]);
    feed.close();
    expect([feed.wants, feed.exhausted]).toEqual([false, true]);
    await new Promise((resolve) => setImmediate(resolve));
    expect(isOpen).toBe(false);
    expect(await take(feed)).toEqual([]);
  });
});

describe('a program that is to stay unlit', () => {
  const sent = async (isUnlit: boolean, ...texts: string[]) => {
    const lines: string[] = [];
    const program = {
      runId: 'a',
      lines: texts.length,
      isUnlit,
      async *open() {
        for (const text of texts) yield { text, seconds: 0 };
      },
    };
    for await (const { text } of linesToSend(program)) lines.push(text);
    return lines;
  };

  test('is sent as it is where nothing in it could light the beam', async () => {
    const plain = ['(Walk)', 'G21', 'M5', 'M9', 'G0X1Y2', 'G1X3F600S0', 'G1 X4 S0.00', 'M30'];
    expect(await sent(true, ...plain)).toEqual(plain);
  });

  test('is broken off before a line that could; another program is not looked at', async () => {
    for (const lit of ['M3', 'M4 S0', 'm04', 'M3S0', 'G1 X9 S0.5', 'G1X9F600S001', 'X5S10', 'S00.1']) {
      await expect(sent(true, 'M5', lit, 'G0X0')).rejects.toThrow(`“${lit}” would light the beam`);
      expect(await sent(false, 'M5', lit)).toEqual(['M5', lit]);
    }
  });
});
