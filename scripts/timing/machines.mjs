// Both stand-ins in the clock's own time, without a wait: how long programs take on them.
import { Controller } from '../../apps/plain-stand-in/src/controller.ts';
import { StandInMachine } from '../../apps/stand-in/src/machine.ts';

/** The stand-in that speaks Lambent. @returns `seconds(lines)`: how long a program takes, from rest to rest */
export function lambentMachine(machine) {
  const [minX, minY] = machine.origin === 'centre' ? [-machine.bedWidth / 2, -machine.bedHeight / 2] : [0, 0];
  const standIn = new StandInMachine({
    name: machine.name,
    minX,
    minY,
    maxX: minX + machine.bedWidth,
    maxY: minY + machine.bedHeight,
    topSpeed: machine.topSpeed,
    travelSpeed: machine.travelSpeed,
    acceleration: machine.acceleration,
    accelerationY: machine.accelerationY ?? null,
    ...(machine.jerk ? { jerk: machine.jerk } : {}),
    ...(machine.arcsWithin ? { arcsWithin: machine.arcsWithin } : {}),
    lookAhead: machine.lookAhead ?? 400,
    lineS: (machine.moveMs ?? 0) / 1000,
    cornerDeviation: machine.cornerDeviation,
    powerScale: machine.powerScale,
    lowestZ: -50,
    highestZ: 50,
    focusSpeed: machine.focus?.speed ?? 5,
    watts: 60,
    takenIn: 1,
  });
  standIn.advance(10);
  const seconds = (lines) => {
    standIn.takeWord('run begin it 1');
    for (const line of lines) {
      while (!standIn.hasRoom) standIn.advance(0.05);
      const answer = standIn.take(line);
      if (answer !== 'ok') throw new Error(`${line}: ${answer}`);
    }
    while (standIn.status().waiting > 0 && standIn.status().state === 'running') standIn.advance(10);
    const { state, reason, runS } = standIn.status();
    if (state !== 'running' && state !== 'idle') throw new Error(`${state}: ${reason}`);
    return runS;
  };
  return { seconds };
}

const tickS = 0.0005;

/** The small controller, its sender never behind. @returns `seconds(lines)`, until the last line is answered */
export function plainMachine(machine) {
  let answered = () => {};
  const { buffer, baud } = machine.connection;
  const controller = new Controller(
    {
      width: machine.bedWidth,
      height: machine.bedHeight,
      topSpeed: machine.topSpeed,
      travelSpeed: machine.travelSpeed,
      accelerations: [machine.acceleration, machine.accelerationY ?? machine.acceleration],
      cornerDeviation: machine.cornerDeviation,
      lookAhead: machine.lookAhead ?? 400,
      lineS: (machine.moveMs ?? 0) / 1000,
      characterS: machine.characterMs === undefined ? (baud ? 10 / baud : 0) : machine.characterMs / 1000,
      jerk: machine.jerk ?? 0,
      arcsWithin: machine.arcsWithin ?? 0,
      buffer,
      powerScale: machine.powerScale,
      tellsRoom: true,
      startsLocked: false,
    },
    (line) => answered(line),
  );
  const seconds = (program) => {
    const lines = program.filter((line) => !line.startsWith('('));
    const owed = [];
    let next = 0;
    let room = buffer;
    const send = () => {
      while (next < lines.length && lines[next].length + 1 <= room) {
        const bytes = Buffer.from(`${lines[next++]}\n`);
        room -= bytes.length;
        owed.push(bytes.length);
        controller.take(bytes);
      }
    };
    let state = 'Idle';
    answered = (line) => {
      if (line.startsWith('<')) {
        [, state] = /^<(\w+)/.exec(line);
        return;
      }
      if (line !== 'ok') throw new Error(line);
      room += owed.shift();
      send();
    };
    send();
    let took = 0;
    do {
      controller.advance(tickS);
      took += tickS;
      controller.take(Buffer.from('?'));
    } while (owed.length > 0 || state === 'Run');
    return took;
  };
  return { seconds };
}
