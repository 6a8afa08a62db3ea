/** Words of a line that would not do what they are meant for, and why not. */
const refused: readonly (readonly [RegExp, string])[] = [
  [/[^ -~]/, 'only plain letters, digits and signs can be sent'],
  [/^.{81,}$/, 'no line may be longer than 80 characters'],
  [/[?!~$]/, '?, !, ~ and $ are orders that act at once'],
  [/M0*[34](?![\d.])|S(?!0*(?:\.0*)?(?![\d.]))/i, 'it would light the beam'],
  [/[XYZ] *[-+.\d]/i, 'it would move the head: say where that rests instead'],
  [/G0*(?:20|91|92|5[3-9]|10|28|30)(?!\d)/i, 'it would change what the places of a program mean'],
  [/M0*(?:0|1|2|30)(?!\d)/i, 'it would end or halt the program'],
];

/**
 * Why a line of the shop's own cannot stand at the start or the end of programs; null where it can. Whether the machine
 * knows its words is the machine's affair: it says so when a run begins.
 */
export function ownLineFault(line: string): string | null {
  const plain = line.replace(/\([^()]*\)/g, '').replace(/;.*$/, '');
  return refused.find(([sign], i) => sign.test(i < 2 ? line : plain))?.[1] ?? null;
}
