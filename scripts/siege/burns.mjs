import { Stack } from '../../apps/server/test/stack.ts';
import { randomFrom, wait } from '../random.mjs';

/** Server and machine are killed, frozen and let go at random moments of burns. */
export async function siegeOfBurns({ seed, strikes }) {
  const random = randomFrom(seed + 1);
  const factor = '20';
  const stack = new Stack();
  await stack.start();
  await stack.startStandIn('wren', '--factor', factor);
  const { body: cards } = await stack.ask('GET', '/api/jobs');
  const card = cards.find(({ title }) => title.startsWith('Row markers'));
  const states = async () =>
    (await stack.ask('GET', '/api/machines/states')).body.find(({ machineId }) => machineId === 'wren');
  const records = async () => (await stack.ask('GET', '/api/runs')).body;
  const until = async (ask, suits) => {
    for (let i = 0; i < 2400; i++) {
      const answer = await ask();
      if (suits(answer)) return answer;
      await wait(25);
    }
    throw new Error(`The siege waited in vain; last: ${JSON.stringify(await ask())}`);
  };
  const counts = { killed: 0, frozen: 0, machineKilled: 0, machineFrozen: 0 };
  let unwatched = 0;
  let untrue = 0;
  let undecided = 0;
  const noteUnwatched = async () => {
    unwatched = Math.max(unwatched, (await stack.standInStatus('wren')).unheardS);
  };
  for (let strike = 0; strike < strikes; strike++) {
    await until(states, ({ state, runId }) => state === 'idle' && runId === null);
    await until(records, (all) => all.every(({ endedAt }) => endedAt !== null));
    const started = await stack.ask('POST', `/api/jobs/${card.id}/runs`, { version: card.version, again: true });
    if (started.status !== 201) throw new Error(`A run did not start: ${JSON.stringify(started.body)}`);
    await until(states, ({ line }) => line > 5);
    await wait(random() * 800);
    const kind = ['killed', 'frozen', 'machineFrozen', 'machineKilled'][strike % 4];
    counts[kind]++;
    if (kind === 'killed') {
      await stack.kill('server');
      await wait(random() * 4000);
      await noteUnwatched();
      await stack.start();
    } else if (kind === 'machineKilled') {
      await noteUnwatched();
      await stack.kill('wren');
      await wait(random() * 500);
      await stack.startStandIn('wren', '--factor', factor);
    } else {
      const whom = kind === 'frozen' ? 'server' : 'wren';
      stack.signal(whom, 'SIGSTOP');
      await wait(random() * 6000);
      stack.signal(whom, 'SIGCONT');
    }
    const id = started.body.id;
    await until(records, (all) => {
      const run = all.find((one) => one.id === id);
      return run.endedAt !== null || ['running', 'held'].includes(run.status);
    });
    await until(states, ({ state }) => state !== 'away');
    // What is held is offered to the operator, who here sometimes goes on, and else stops.
    const goesOn = random() < 0.4;
    for (let i = 0; i < 400; i++) {
      const { state } = await states();
      const run = (await records()).find((one) => one.id === id);
      if (run.endedAt !== null) break;
      const command = state === 'held' && goesOn && i === 0 ? 'resume' : 'stop';
      await stack.ask('POST', '/api/machines/wren/commands', { command });
      await wait(100);
    }
    const run = (await records()).find((one) => one.id === id);
    if (run.endedAt === null) undecided++;
    const machine = await stack.standInStatus('wren');
    unwatched = Math.max(unwatched, machine.unheardS);
    if (machine.run?.id === id && machine.line !== run.doneLine) untrue++;
    if (machine.state === 'running') untrue++;
    if ((strike + 1) % 10 === 0) console.log(`   ${strike + 1} strikes, ${unwatched.toFixed(2)} s at most unwatched`);
  }
  await stack.close();
  const { killed, frozen, machineKilled, machineFrozen } = counts;
  return [
    {
      what: `burns struck (server killed ${killed}, frozen ${frozen}; machine killed ${machineKilled}, frozen ${machineFrozen})`,
      found: strikes,
      most: null,
    },
    {
      what: 'longest burnt without a server that knows, machine seconds',
      found: Number(unwatched.toFixed(2)),
      most: 3,
    },
    { what: 'records whose last line is not the machine’s, or that are over while it burns', found: untrue, most: 0 },
    { what: 'runs that did not end when stopped', found: undecided, most: 0 },
  ];
}
