// One measurement of reading.mjs, in a thread of its own: reads one text, by the XML package alone or whole.
import { parentPort, workerData } from 'node:worker_threads';
import { readSvg } from '@lambent/core/formats/svg';
import { SaxesParser } from 'saxes';

const { text, whole } = workerData;

function parse() {
  const parser = new SaxesParser({ xmlns: true, position: true });
  parser.on('error', (error) => {
    throw error;
  });
  parser.write(text).close();
}

const start = performance.now();
if (whole) readSvg(text, (place) => place);
else parse();
parentPort.postMessage(performance.now() - start);
