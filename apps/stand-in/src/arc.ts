import { type Command, LineRefused } from './line.ts';

interface Place {
  readonly x: number;
  readonly y: number;
}

type MoveCommand = Extract<Command, { kind: 'move' }>;

/** The ends of an arc may differ by so many mm in how far they are from its centre. */
const radiiWithin = 0.005;

/**
 * Where the head goes for a line, in straight ways: an arc in equal ones, none of which is further from it than `within` mm.
 *
 * @throws LineRefused on arcs where the machine takes none, and on arcs that miss their end
 */
export function placesOf(command: MoveCommand, from: Place, within: number | undefined): Place[] {
  const { motion } = command;
  const to = { x: command.x ?? from.x, y: command.y ?? from.y };
  if (motion < 2) return [to];
  if (within === undefined) throw new LineRefused(`G${motion} is not known`);
  const centre = { x: from.x + (command.i ?? 0), y: from.y + (command.j ?? 0) };
  const radius = distance(centre, from);
  const endRadius = distance(centre, to);
  if (Math.abs(endRadius - radius) > radiiWithin)
    throw new LineRefused(`G${motion} does not lead to X${to.x} Y${to.y}`);
  const begin = angleAt(centre, from);
  let turn = angleAt(centre, to) - begin;
  if (motion === 2 && turn >= 0) turn -= 2 * Math.PI;
  if (motion === 3 && turn <= 0) turn += 2 * Math.PI;
  // Half the angle of a way whose middle is `within` off.
  const half = Math.acos(1 - within / radius);
  const count = Math.ceil(Math.abs(turn) / (2 * half));
  const places: Place[] = [];
  for (let i = 1; i < count; i++) {
    const share = i / count;
    const angle = begin + turn * share;
    const r = radius + (endRadius - radius) * share;
    places.push({ x: centre.x + r * Math.cos(angle), y: centre.y + r * Math.sin(angle) });
  }
  return [...places, to];
}

function distance(a: Place, b: Place): number {
  return Math.hypot(b.x - a.x, b.y - a.y);
}

function angleAt(centre: Place, place: Place): number {
  return Math.atan2(place.y - centre.y, place.x - centre.x);
}
