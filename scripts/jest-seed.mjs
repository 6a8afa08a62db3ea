// Property tests try the same cases in every run, so that one that fails fails for everybody. LAMBENT_SEED tries others,
// LAMBENT_RUNS more or fewer of them.
import fc from 'fast-check';

fc.configureGlobal({
  seed: Number(process.env.LAMBENT_SEED ?? 20261127),
  ...(process.env.LAMBENT_RUNS ? { numRuns: Number(process.env.LAMBENT_RUNS) } : {}),
});
