import { SaxesParser } from 'saxes';
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
  /** Every element, in the order of the file. */
  readonly elements: readonly SvgElement[];
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
  const parser = new SaxesParser({ position: true });
  const stack: (SvgElement | null)[] = [];
  const spaces = new Namespaces();
  let attributes: Record<string, string> = {};
  let root: SvgElement | null = null;
  const elements: SvgElement[] = [];
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
  parser.on('attribute', ({ name, value }) => {
    const colon = name.indexOf(':');
    if (colon < 0) attributes[name] = value;
    else {
      const local = name.slice(colon + 1);
      if (local === 'href' || local === 'space' || local === 'label') attributes[local] ??= value;
    }
    spaces.attribute(name, value);
  });
  parser.on('opentag', (tag) => {
    if (stack.length >= deepest) {
      throw new FileRefused(
        `The file nests elements more than ${deepest} deep at line ${parser.line}. ` +
          'No drawing needs that; ungroup it in the program that made it.',
      );
    }
    const parent = stack.at(-1) ?? null;
    const name = spaces.open(tag.name);
    const element = name === null ? null : elementOf(name, attributes, parent, parser.line, elements.length);
    attributes = {};
    if (element) elements.push(element);
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
    spaces.close();
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
  return { root, elements, unknownEntities: entitiesIn(text), remarks };
}

/** Most elements have no children; they share one list, which a first child replaces. */
const childless: readonly SvgElement[] = [];

function addChild(parent: SvgElement, child: SvgElement): void {
  const owner = parent as { children: readonly SvgElement[] };
  if (owner.children === childless) owner.children = [child];
  else (owner.children as SvgElement[]).push(child);
}

function elementOf(
  name: string,
  attributes: Record<string, string>,
  parent: SvgElement | null,
  line: number,
  place: number,
): SvgElement {
  const content = withText.has(name) || (name === 'a' && parent?.content) ? [] : null;
  return { name, attributes, parent, children: childless, content, line, place };
}

/**
 * Which elements are SVG's. The parser could tell too, at half as much again of its time; and it would
 * refuse a file for a prefix that nothing declares, which editors leave behind and which says nothing of
 * what is drawn.
 */
class Namespaces {
  /** By prefix, the default one under ''; shared by all elements that declare none. */
  private bound: ReadonlyMap<string, string> = new Map();
  private readonly outer: ReadonlyMap<string, string>[] = [];
  private declared: [prefix: string, uri: string][] = [];

  /** Takes an attribute of the element that opens next. */
  attribute(name: string, value: string): void {
    if (name === 'xmlns' || name.startsWith('xmlns:')) this.declared.push([name.slice(6), value]);
  }

  /** @returns the element's name without its prefix; null when it is not SVG's */
  open(name: string): string | null {
    this.outer.push(this.bound);
    if (this.declared.length > 0) {
      this.bound = new Map([...this.bound, ...this.declared]);
      this.declared = [];
    }
    const colon = name.indexOf(':');
    const uri = this.bound.get(colon < 0 ? '' : name.slice(0, colon));
    if (uri === svgNamespace) return colon < 0 ? name : name.slice(colon + 1);
    return colon < 0 && (uri ?? '') === '' ? name : null;
  }

  close(): void {
    this.bound = this.outer.pop() ?? this.bound;
  }
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
