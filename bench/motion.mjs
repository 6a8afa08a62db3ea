// The planner's time against the stand-in's on the demo jobs, burnt on the real stack at the demo's 20×.
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** @returns one row a job: planned and taken, in machine seconds */
export async function benchMotion(address) {
  const ask = async (path, body) => {
    const response = await fetch(address + path, {
      method: body ? 'POST' : 'GET',
      headers: { 'Content-Type': 'application/json' },
      body: body && JSON.stringify(body),
    });
    return response.json();
  };
  const rows = [];
  for (const { id, title, version, machineId } of await ask('/api/jobs')) {
    while ((await ask('/api/machines/states')).find((machine) => machine.machineId === machineId).state !== 'idle')
      await pause(100);
    const run = await ask(`/api/jobs/${id}/runs`, { version });
    for (;;) {
      await pause(200);
      const now = (await ask(`/api/runs?job=${id}`)).find((one) => one.id === run.id);
      if (now.status === 'running') continue;
      rows.push({ title, status: now.status, plannedS: now.plannedS, machineS: now.machineS });
      break;
    }
  }
  return rows;
}
