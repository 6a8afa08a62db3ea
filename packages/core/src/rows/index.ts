export { burnRowAgain, burnsLayersOf } from './again.ts';
export { artSources, chosenArt, type FilesBroughtIn, filesBroughtIn, missingArt } from './chosen-art.ts';
export { type FilledRow, type FilledRows, fillRows, pieceOf, wordsOf } from './fill.ts';
export { gridOf } from './grid.ts';
export { layRows } from './lay-rows.ts';
export { designOf, groupsOfList, itemsOfGroups, laidRows, type NamedRow, otherFillings } from './pieces.ts';
export {
  faultsOfList,
  type ListWords,
  numberRows,
  readTable,
  type TableFault,
  TableRefused,
  writeCsv,
  writeTable,
} from './read-table.ts';
