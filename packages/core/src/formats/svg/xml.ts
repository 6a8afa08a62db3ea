import { SaxesParser, type SaxesTagNS } from 'saxes';
import { FileRefused } from '../refusal.ts';

/** An element of the file, with its SVG name; elements of other namespaces are not kept. */
export interface SvgElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly parent: SvgElement | null;
  readonly children: readonly SvgElement[];
  /** In text, what stands between and around the children, in order; null elsewhere. */
  readonly content: (SvgElement | string)[] | null;
  readonly line: number;
  /** Its place among all elements of the file, counted from 0. */
  readonly place: number;
}

export interface SvgTree {
  readonly root: SvgElement;
  /** Entities the file uses that are not XML's own, by name. */
  readonly unknownEntities: ReadonlyMap<string, number>;
  /** What people and programs wrote beside the drawing: comments, metadata, descriptions. */
  readonly remarks: string;
}

const svgNamespace = 'http://www.w3.org/2000/svg';
/** Deeper than any drawing that a person or a program made for use. */
const deepest = 400;
const mostRemarks = 4000;
const ownEntities = ['amp', 'lt', 'gt', 'quot', 'apos'];
const withText = new Set(['style', 'text', 'tspan', 'textPath', 'tref', 'title']);

/**
 * Reads XML into a tree of SVG elements. Nothing outside the text is ever fetched, and no entity
 * that the file itself declares is expanded.
 *
 * @throws FileRefused when the text is not well-formed, not SVG, or nested beyond reason
 */
export function readSvgTree(text: string): SvgTree {
  const parser = new SaxesParser({ xmlns: true, position: true });
  const stack: (SvgElement | null)[] = [];
  let root: SvgElement | null = null;
  let count = 0;
  let remarks = '';
  const remark = (said: string) => {
    if (remarks.length < mostRemarks) remarks += `${said.slice(0, mostRemarks)}\n`;
  };

  parser.on('error', (error) => {
    if (/entity/i.test(error.message)) return;
    throw new FileRefused(
      `The file is not well-formed XML: ${plainReason(error.message)} at line ${parser.line}. ` +
        'It may have been cut off on the way; save or send it again.',
    );
  });
  parser.on('opentag', (tag: SaxesTagNS) => {
    if (stack.length >= deepest) {
      throw new FileRefused(
        `The file nests elements more than ${deepest} deep at line ${parser.line}. ` +
          'No drawing needs that; ungroup it in the program that made it.',
      );
    }
    const parent = stack.at(-1) ?? null;
    const isSvg = tag.uri === svgNamespace || (tag.uri === '' && tag.prefix === '');
    const element = isSvg ? elementOf(tag, parent, parser.line, count++) : null;
    if (!root) {
      if (element?.name !== 'svg') {
        throw new FileRefused(`The file is XML but not SVG: it starts with <${tag.name}>. Save the drawing as SVG.`);
      }
      root = element;
    } else if (element && parent) {
      addChild(parent, element);
      parent.content?.push(element);
    }
    stack.push(element);
  });
  parser.on('closetag', () => {
    stack.pop();
  });
  const addText = (chunk: string) => {
    const open = stack.at(-1);
    if (open?.content) open.content.push(chunk);
    else if (chunk.trim() !== '' && (!open || open.name === 'desc')) remark(chunk);
  };
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.on('comment', remark);
  parser.write(text).close();
  if (!root) throw new FileRefused('The file holds no drawing. Save it again as SVG.');
  return { root, unknownEntities: entitiesIn(text), remarks };
}

/** Most elements have no children; they share one list, which a first child replaces. */
const childless: readonly SvgElement[] = [];

function addChild(parent: SvgElement, child: SvgElement): void {
  const owner = parent as { children: readonly SvgElement[] };
  if (owner.children === childless) owner.children = [child];
  else (owner.children as SvgElement[]).push(child);
}

function elementOf(tag: SaxesTagNS, parent: SvgElement | null, line: number, place: number): SvgElement {
  const attributes: Record<string, string> = {};
  for (const name in tag.attributes) {
    const { prefix, local, value } = tag.attributes[name];
    if (prefix === '') attributes[name] = value;
    else if (local === 'href' || local === 'space' || local === 'label') attributes[local] ??= value;
  }
  const content = withText.has(tag.local) || (tag.local === 'a' && parent?.content) ? [] : null;
  return { name: tag.local, attributes, parent, children: childless, content, line, place };
}

function entitiesIn(text: string): Map<string, number> {
  const unknown = new Map<string, number>();
  if (!text.includes('&')) return unknown;
  for (const [, name] of text.matchAll(/&([A-Za-z_][\w.-]*);/g)) {
    if (!ownEntities.includes(name)) unknown.set(name, (unknown.get(name) ?? 0) + 1);
  }
  return unknown;
}

/** The text right in an element, its children's left out. */
export function textIn(element: SvgElement): string {
  return element.content?.filter((part) => typeof part === 'string').join('') ?? '';
}

/** The parser's message without its place, which is said once, and in words. */
function plainReason(message: string): string {
  return message.replace(/^\d+:\d+:\s*/, '').replace(/\.$/, '');
}
