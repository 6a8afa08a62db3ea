import { expect, test } from '@jest/globals';
import { filesOfDrop, titleFrom } from './files-of-drop.ts';

const file = (name: string) => new File(['x'], name);
const entryOf = (name: string, path: string) => ({
  isFile: true,
  isDirectory: false,
  name,
  fullPath: path,
  file: (take: (file: File) => void) => take(file(name)),
});
/** A folder that gives its entries two at a time, as browsers do a hundred. */
function folder(name: string, path: string, entries: readonly unknown[]) {
  return {
    isFile: false,
    isDirectory: true,
    name,
    fullPath: path,
    createReader: () => {
      const left = [...entries];
      return { readEntries: (take: (entries: unknown[]) => void) => take(left.splice(0, 2)) };
    },
  };
}
const drop = (...entries: readonly { isFile: boolean; name: string }[]) =>
  filesOfDrop({
    items: entries.map((entry) => ({ kind: 'file', webkitGetAsEntry: () => entry })),
    files: entries.filter(({ isFile }) => isFile).map(({ name }) => file(name)),
  } as never);
const names = (files: readonly File[]) => files.map(({ name }) => name);

test('files are as they were dropped, whatever they are called', async () => {
  const { files, ...rest } = await drop(entryOf('b.svg', '/b.svg'), entryOf('notes.txt', '/notes.txt'));
  expect([names(files), rest]).toEqual([['b.svg', 'notes.txt'], { folder: null, leftOut: 0 }]);
});

test('of a folder its drawings and pictures are taken, with those of folders in it, in the order of their names', async () => {
  const inner = folder('signs', '/tags/signs', [entryOf('sign.dxf', '/tags/signs/sign.dxf')]);
  const tags = folder('tags', '/tags', [
    entryOf('tag10.svg', '/tags/tag10.svg'),
    entryOf('tag9.SVG', '/tags/tag9.SVG'),
    inner,
    entryOf('.hidden.svg', '/tags/.hidden.svg'),
    entryOf('list.csv', '/tags/list.csv'),
  ]);
  const { files, ...rest } = await drop(tags);
  expect([names(files), rest]).toEqual([['sign.dxf', 'tag9.SVG', 'tag10.svg'], { folder: 'tags', leftOut: 1 }]);
  const both = await drop(tags, entryOf('notes.txt', '/notes.txt'));
  expect([names(both.files)[0], both.files.length, both.folder]).toEqual(['notes.txt', 4, null]);
});

test('a file’s name without its ending is the title of its job', () => {
  expect(['seed packet.v2.svg', 'README', '.svg', ''].map(titleFrom)).toEqual([
    'seed packet.v2',
    'README',
    '.svg',
    'Untitled job',
  ]);
});
