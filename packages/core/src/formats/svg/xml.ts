import { SaxesParser, type SaxesTagNS } from 'saxes';
import { FileRefused } from '../refusal.ts';

/** An element of the file, with its SVG name; elements of other namespaces are not kept. */
export interface SvgElement {
  readonly name: string;
  readonly attributes: ReadonlyMap<string, string>;
  readonly children: SvgElement[];
  text: string;
  readonly line: number;
}

export interface SvgTree {
  readonly root: SvgElement;
  /** Entities the file uses that are not XML's own, by name. */
  readonly unknownEntities: ReadonlyMap<string, number>;
}

const svgNamespace = 'http://www.w3.org/2000/svg';
/** Deeper than any drawing that a person or a program made for use. */
const deepest = 400;

/**
 * Reads XML into a tree of SVG elements. Nothing outside the text is ever fetched, and no entity
 * that the file itself declares is expanded.
 *
 * @throws FileRefused when the text is not well-formed, not SVG, or nested beyond reason
 */
export function readSvgTree(text: string): SvgTree {
  const parser = new SaxesParser({ xmlns: true, position: true });
  const unknownEntities = new Map<string, number>();
  const stack: (SvgElement | null)[] = [];
  let root: SvgElement | null = null;

  parser.on('error', (error) => {
    const entity = /undefined entity|entity/i.test(error.message);
    if (entity) return;
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
    const element =
      tag.uri === svgNamespace || (tag.uri === '' && tag.prefix === '') ? elementOf(tag, parser.line) : null;
    if (!root) {
      if (element?.name !== 'svg') {
        throw new FileRefused(`The file is XML but not SVG: it starts with <${tag.name}>. Save the drawing as SVG.`);
      }
      root = element;
    } else if (element) {
      stack.at(-1)?.children.push(element);
    }
    stack.push(element);
  });
  parser.on('closetag', () => {
    stack.pop();
  });
  const addText = (chunk: string) => {
    const open = stack.at(-1);
    if (open && (open.name === 'style' || open.name === 'text' || open.name === 'tspan')) open.text += chunk;
  };
  parser.on('text', addText);
  parser.on('cdata', addText);

  for (const [, name] of text.matchAll(/&([A-Za-z_][\w.-]*);/g)) {
    if (!['amp', 'lt', 'gt', 'quot', 'apos'].includes(name)) {
      unknownEntities.set(name, (unknownEntities.get(name) ?? 0) + 1);
    }
  }
  parser.write(text).close();
  if (!root) throw new FileRefused('The file holds no drawing. Save it again as SVG.');
  return { root, unknownEntities };
}

function elementOf(tag: SaxesTagNS, line: number): SvgElement {
  const attributes = new Map<string, string>();
  for (const [name, attribute] of Object.entries(tag.attributes)) {
    if (attribute.prefix === '' || attribute.prefix === 'xml' || attribute.local === 'href') {
      attributes.set(attribute.prefix === '' ? name : attribute.local, attribute.value);
    }
  }
  return { name: tag.local, attributes, children: [], text: '', line };
}

/** The parser's message without its place, which is said once, and in words. */
function plainReason(message: string): string {
  return message.replace(/^\d+:\d+:\s*/, '').replace(/\.$/, '');
}
