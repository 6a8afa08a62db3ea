import { type SaxesOptions, SaxesParser } from 'saxes';
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
  /** The first element of each id. */
  readonly byId: ReadonlyMap<string, SvgElement>;
  /** Entities the file uses that are neither XML's nor its own, by name. */
  readonly unknownEntities: ReadonlyMap<string, number>;
  /** Elements without a namespace in a file whose root has one, by name: they are no part of the drawing. */
  readonly bareElements: ReadonlyMap<string, number>;
  /** What people and programs wrote beside the drawing: comments, metadata, descriptions. */
  readonly remarks: string;
}

const svgNamespace = 'http://www.w3.org/2000/svg';
/** Deeper than any drawing that a person or a program made for use. */
const deepest = 400;
const mostRemarks = 4000;
const ownEntities = ['amp', 'lt', 'gt', 'quot', 'apos'];
const withText = new Set(['style', 'text', 'tspan', 'textPath', 'tref', 'title']);

type ParserParts = Pick<SaxesParser, 'on' | 'write' | 'close' | 'line' | 'ENTITIES'>;

/**
 * The package's parser, with the fields that hold what listens to it. It adds them one by one under names that it looks
 * up; an object with more than a few of those is kept as a dictionary by V8, and reads eight times as slowly.
 */
class XmlParser extends (SaxesParser as unknown as new (options: SaxesOptions) => ParserParts) {
  protected errorHandler = undefined;
  protected attributeHandler = undefined;
  protected openTagHandler = undefined;
  protected closeTagHandler = undefined;
  protected textHandler = undefined;
  protected cdataHandler = undefined;
  protected commentHandler = undefined;
  protected doctypeHandler = undefined;
}

/**
 * Reads XML into a tree of SVG elements. Nothing outside the text is ever fetched. Texts that the file
 * itself declares as entities are put in, up to a length beyond which a file multiplies itself.
 *
 * @throws FileRefused when the text is not well-formed, not SVG, or nested beyond reason
 */
export function readSvgTree(text: string): SvgTree {
  const parser = new XmlParser({ position: true });
  const stack: (SvgElement | null)[] = [];
  const spaces = new Namespaces();
  const bareElements = new Map<string, number>();
  let declared: ReadonlySet<string> = new Set();
  parser.on('doctype', (type) => {
    declared = declareEntities(parser, type);
  });
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
    if (name === null && !tag.name.includes(':')) {
      bareElements.set(tag.name, (bareElements.get(tag.name) ?? 0) + 1);
    }
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
  return {
    root,
    elements,
    byId: indexById(elements),
    unknownEntities: entitiesIn(text, declared),
    bareElements,
    remarks,
  };
}

function indexById(elements: readonly SvgElement[]): ReadonlyMap<string, SvgElement> {
  const byId = new Map<string, SvgElement>();
  for (const element of elements) {
    const { id } = element.attributes;
    if (id !== undefined && !byId.has(id)) byId.set(id, element);
  }
  return byId;
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
  /** Whether the file's root is in no namespace, as drawings by hand are: then all are SVG's that have none. */
  private rootIsBare: boolean | null = null;

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
    if (uri === svgNamespace) this.rootIsBare ??= false;
    if (uri === svgNamespace) return colon < 0 ? name : name.slice(colon + 1);
    const bare = colon < 0 && (uri ?? '') === '';
    this.rootIsBare ??= bare;
    return bare && this.rootIsBare ? name : null;
  }

  close(): void {
    this.bound = this.outer.pop() ?? this.bound;
  }
}

/** Texts put in for entities are no longer than this in all. */
const mostEntityText = 5_000_000;
/** One whose text is longer than this, with those that it refers to, is not followed. */
const longestEntity = 200_000;

/** Makes known the texts that a document type declares as entities; what is to be fetched, or holds markup, is not. */
function declareEntities(parser: ParserParts, declared: string): ReadonlySet<string> {
  const texts = new Map<string, string>();
  for (const [, name, double, single] of declared.matchAll(/<!ENTITY\s+([\w.:-]+)\s+(?:"([^"]*)"|'([^']*)')\s*>/g)) {
    const text = double ?? single;
    if (!texts.has(name) && !ownEntities.includes(name) && !text.includes('<')) texts.set(name, text);
  }
  let put = 0;
  const expanded = (text: string, depth: number): string =>
    text.replace(/&(#x[\da-f]+|#\d+|[\w.:-]+);/gi, (whole, name: string) => {
      if (name.startsWith('#')) {
        const code = /^#x/i.test(name) ? Number.parseInt(name.slice(2), 16) : Number(name.slice(1));
        return code <= 0x10ffff ? String.fromCodePoint(code) : whole;
      }
      const inner = texts.get(name);
      if (inner === undefined || depth > 8 || put > longestEntity) return whole;
      put += inner.length;
      return expanded(inner, depth + 1);
    });
  const known = new Set<string>();
  let given = 0;
  for (const [name, text] of texts) {
    put = 0;
    const value = expanded(text, 0);
    if (put > longestEntity) continue;
    known.add(name);
    Object.defineProperty(parser.ENTITIES, name, {
      get: () => {
        given += value.length;
        if (given > mostEntityText) {
          throw new FileRefused('The file repeats its own texts (entities) without end. Save it without them.');
        }
        return value;
      },
    });
  }
  return known;
}

function entitiesIn(text: string, declared: ReadonlySet<string>): Map<string, number> {
  const unknown = new Map<string, number>();
  if (!text.includes('&')) return unknown;
  for (const [, name] of text.matchAll(/&([A-Za-z_][\w.-]*);/g)) {
    if (!ownEntities.includes(name) && !declared.has(name)) {
      unknown.set(name, (unknown.get(name) ?? 0) + 1);
    }
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
