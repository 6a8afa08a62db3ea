export { burntOperations, isBurnt, type Operation, operationColours, operationNames, operations } from './operation.ts';
