export { makeCode } from './make-code.ts';
