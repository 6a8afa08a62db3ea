import type { SvgElement } from './xml.ts';

/** One rule of a style sheet: what it applies to, how much it weighs, what it says. */
interface StyleRule {
  readonly tag: string | null;
  readonly id: string | null;
  readonly classes: readonly string[];
  readonly weight: number;
  readonly declarations: ReadonlyMap<string, string>;
}

export interface StyleSheet {
  readonly rules: readonly StyleRule[];
  /** Selectors and at-rules that are not read yet, as written. */
  readonly unread: readonly string[];
}

const simpleSelector = /^(\*|[a-zA-Z][\w-]*)?((?:[.#][\w-]+)*)$/;

/** Reads the rules whose selectors name an element by type, class or id, alone or together. */
export function readStyleSheet(text: string): StyleSheet {
  const rules: StyleRule[] = [];
  const unread: string[] = [];
  const plain = text.replace(/\/\*[\s\S]*?\*\//g, '').replace(/<!--|-->/g, '');
  for (const [, head, body] of plain.matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
    const declarations = readDeclarations(body);
    for (const selector of head.split(',').map((part) => part.trim())) {
      const match = simpleSelector.exec(selector);
      if (!match || selector === '') {
        unread.push(selector.slice(0, 60));
        continue;
      }
      const names = match[2].match(/[.#][\w-]+/g) ?? [];
      const classes = names.filter((name) => name[0] === '.').map((name) => name.slice(1));
      const ids = names.filter((name) => name[0] === '#').map((name) => name.slice(1));
      const tag = match[1] && match[1] !== '*' ? match[1] : null;
      rules.push({
        tag,
        id: ids[0] ?? null,
        classes,
        weight: ids.length * 100 + classes.length * 10 + (tag ? 1 : 0),
        declarations,
      });
    }
  }
  // A stable sort: of two rules that weigh the same, the later one wins.
  rules.sort((a, b) => a.weight - b.weight);
  return { rules, unread };
}

/** `fill:red; stroke : blue` as a map; `!important` is dropped. */
export function readDeclarations(text: string): Map<string, string> {
  const out = new Map<string, string>();
  for (const declaration of text.split(';')) {
    const colon = declaration.indexOf(':');
    if (colon < 0) continue;
    const value = declaration.slice(colon + 1).replace(/!\s*important/i, '');
    out.set(declaration.slice(0, colon).trim().toLowerCase(), value.trim());
  }
  return out;
}

/** What an element itself says of a property, if anything. */
export type OwnStyle = (property: string) => string | undefined;

/** Looks a property up in an element's style attribute, else in the sheets, else in its attributes. */
export function ownStyle(element: SvgElement, sheet: StyleSheet): OwnStyle {
  const inline = element.attributes.get('style');
  const declared = inline ? readDeclarations(inline) : null;
  const classes = element.attributes.get('class')?.trim().split(/\s+/) ?? [];
  const id = element.attributes.get('id');
  const matching = sheet.rules.filter(
    (rule) =>
      (rule.tag === null || rule.tag === element.name) &&
      (rule.id === null || rule.id === id) &&
      rule.classes.every((name) => classes.includes(name)),
  );
  return (property) => {
    const said = declared?.get(property);
    if (said !== undefined) return said;
    for (let i = matching.length - 1; i >= 0; i--) {
      const value = matching[i].declarations.get(property);
      if (value !== undefined) return value;
    }
    return element.attributes.get(property);
  };
}
