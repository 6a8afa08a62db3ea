import swcJest from '@swc/jest';

/*
 * Jest runs tests in a context of their own, in which each look at a global is slow, and geometry is full of `Math`: it
 * took twice as long. So every module has those that loops use as constants of its own, on its first line, which keeps
 * the numbers of lines.
 */
const globals = 'Math, Number, Infinity, Array, Float64Array, Int32Array, Uint8Array, Map, Set, Object';
const withConstants = (source) => `const { ${globals} } = globalThis; ${source}`;

export default {
  createTransformer(options) {
    const swc = swcJest.createTransformer(options);
    return {
      ...swc,
      process: (source, ...rest) => swc.process(withConstants(source), ...rest),
      processAsync: (source, ...rest) => swc.processAsync(withConstants(source), ...rest),
    };
  },
};
