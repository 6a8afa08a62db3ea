// One file a message: made from a seed, read, and judged.
import { parentPort } from 'node:worker_threads';
import { FileRefused, readDrawingFile } from '@lambent/core/formats';
import { shippedTools } from '@lambent/fonts';
import { hostileFile } from './fuzz-files.mjs';

const tools = shippedTools();

parentPort.on('message', async (seed) => {
  const { what, bytes } = await hostileFile(seed);
  try {
    const reading = await readDrawingFile(bytes, (place) => place, tools, seed % 2 ? { dashes: 'dashed' } : {});
    const ids = new Set(reading.drawing.items.map(({ id }) => id));
    const odd = reading.drawing.items.find((item) => !item.matrix.every(Number.isFinite));
    if (ids.size !== reading.drawing.items.length) parentPort.postMessage({ what, trouble: 'two items have one id' });
    else if (odd) parentPort.postMessage({ what, trouble: `item ${odd.id} has a place that is no number` });
    else parentPort.postMessage({ what });
  } catch (error) {
    const plain = error instanceof FileRefused && /^[A-Z].*\.$/s.test(error.message);
    parentPort.postMessage(plain ? { what } : { what, trouble: String(error?.stack ?? error) });
  }
});
