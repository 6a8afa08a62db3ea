import { type CssNode, type Rule as CssRule, generate, parse as parseCss, walk } from 'css-tree';
import { AttributeAction, parse as parseSelector, type Selector, SelectorType } from 'css-what';
import { gather } from '../../lists/gather.ts';
import { presentation } from './properties.ts';
import { compare, isCombinator, isFollowed, matches, type Ordinal, weightOf } from './select.ts';
import { type Declared, ownVariables, putDeclaration, withoutKeywords, withVariables } from './specified.ts';
import { type SvgElement, textIn } from './xml.ts';

interface StyleRule {
  readonly selector: readonly Selector[];
  readonly weight: Ordinal;
  readonly normal: Declared;
  readonly important: Declared;
}

const nothing: Declared = {};

/** How many `style` attributes are kept as read. */
const mostOwnStyles = 1000;

/** The style sheets of a file, and what they make of each element. */
export class StyleSheet {
  /** Rules by what the last part of their selector asks for, so that few are tried on an element. */
  private readonly byId = new Map<string, StyleRule[]>();
  private readonly byClass = new Map<string, StyleRule[]>();
  private readonly byTag = new Map<string, StyleRule[]>();
  private readonly byNone: StyleRule[] = [];
  private count = 0;
  private readonly order = new Map<StyleRule, number>();
  private readonly ownStyles = new Map<string, Declarations>();
  /** Selectors and at-rules that are not followed, as written. */
  readonly unread: string[] = [];

  /**
   * @param elements every element of the file, in its order
   * @param special which of what few files have is in this one: `var()`, and words such as `inherit`
   */
  constructor(
    elements: readonly SvgElement[],
    private readonly special: { readonly variables: boolean; readonly keywords: boolean },
  ) {
    for (const element of elements) {
      if (element.name === 'style' && isForScreen(element.attributes.media ?? 'all')) this.add(textIn(element));
    }
  }

  /**
   * What an element itself says of each property, by name: sheets over attributes, its own style over sheets, with
   * references and words such as `unset` followed. Nothing is inherited.
   *
   * @param inherited the custom properties that it takes over; by default those of what it is in
   */
  declarationsOf(element: SvgElement, inherited?: Declared): Declared {
    let declared = this.cascaded(element);
    if (this.special.variables) {
      declared = withVariables(declared, ownVariables(declared, inherited ?? this.variablesAbove(element)));
    }
    if (this.special.keywords || this.special.variables) {
      const { parent } = element;
      declared = withoutKeywords(declared, (name) => (parent ? this.declarationsOf(parent)[name] : undefined));
    }
    return declared;
  }

  private variablesAbove({ parent }: SvgElement): Declared {
    return parent ? ownVariables(this.cascaded(parent), this.variablesAbove(parent)) : nothing;
  }

  private cascaded(element: SvgElement): Declared {
    const { attributes } = element;
    const out: Record<string, string> = {};
    for (const name in attributes) if (presentation.has(name)) out[name] = attributes[name];
    const matching = this.count === 0 ? [] : this.matching(element);
    for (const rule of matching) Object.assign(out, rule.normal);
    const own = attributes.style ? this.ownStyle(attributes.style) : null;
    if (own) Object.assign(out, own.normal);
    for (const rule of matching) Object.assign(out, rule.important);
    if (own) Object.assign(out, own.important);
    return out;
  }

  /** Drawings say the same few styles over and over. */
  private ownStyle(text: string): Declarations {
    const known = this.ownStyles.get(text);
    if (known) return known;
    const read = readDeclarations(text);
    if (this.ownStyles.size < mostOwnStyles) this.ownStyles.set(text, read);
    return read;
  }

  private add(text: string): void {
    const tree = parseCss(text.replace(/<!--|-->/g, ''), {
      parseRulePrelude: false,
      parseAtrulePrelude: false,
      parseValue: false,
      onParseError: () => undefined,
    });
    this.rules(tree);
  }

  private rules(parent: CssNode): void {
    if (parent.type !== 'StyleSheet' && parent.type !== 'Block') return;
    for (const node of parent.children) {
      if (node.type === 'Rule') this.rule(node);
      else if (node.type === 'Atrule') {
        const prelude = node.prelude ? generate(node.prelude) : '';
        if (node.name === 'media' && node.block) {
          if (isForScreen(prelude)) this.rules(node.block);
        } else if (node.name !== 'charset' && node.name !== 'namespace') {
          this.unread.push(`@${node.name} ${prelude}`.trim().slice(0, 60));
        }
      }
    }
  }

  private rule(node: CssRule): void {
    const head = generate(node.prelude);
    const { normal, important } = declarationsIn(node.block);
    let selectors: Selector[][];
    try {
      selectors = parseSelector(head);
    } catch {
      this.unread.push(head.slice(0, 60));
      return;
    }
    for (const selector of selectors) {
      if (!selector.every(isFollowed)) {
        this.unread.push(head.slice(0, 60));
        continue;
      }
      const rule: StyleRule = { selector, weight: weightOf(selector), normal, important };
      this.order.set(rule, this.count++);
      this.file(rule);
    }
  }

  private file(rule: StyleRule): void {
    const { selector } = rule;
    let id: string | null = null;
    let className: string | null = null;
    let tag: string | null = null;
    for (let i = selector.length - 1; i >= 0 && !isCombinator(selector[i]); i--) {
      const part = selector[i];
      if (part.type === SelectorType.Tag) tag = part.name;
      if (part.type !== SelectorType.Attribute) continue;
      if (part.name === 'id' && part.action === AttributeAction.Equals) id = part.value;
      if (part.name === 'class' && part.action === AttributeAction.Element) className = part.value;
    }
    if (id !== null) gather(this.byId, id, rule);
    else if (className !== null) gather(this.byClass, className, rule);
    else if (tag !== null) gather(this.byTag, tag, rule);
    else this.byNone.push(rule);
  }

  private matching(element: SvgElement): StyleRule[] {
    const { id, class: classes } = element.attributes;
    const candidates = [...this.byNone, ...(this.byTag.get(element.name) ?? [])];
    if (id !== undefined) candidates.push(...(this.byId.get(id) ?? []));
    if (classes !== undefined) {
      for (const name of new Set(classes.trim().split(/\s+/))) candidates.push(...(this.byClass.get(name) ?? []));
    }
    const rules = candidates.filter(({ selector }) => matches(element, selector, selector.length - 1));
    if (rules.length > 1) rules.sort((a, b) => compare(a.weight, b.weight) || this.place(a) - this.place(b));
    return rules;
  }

  private place(rule: StyleRule): number {
    return this.order.get(rule) ?? 0;
  }
}

function isForScreen(media: string): boolean {
  return media.trim() === '' || media.split(',').some((query) => /^\s*(?:only\s+)?(?:all|screen)\b/i.test(query));
}

interface Declarations {
  readonly normal: Declared;
  readonly important: Declared;
}

function declarationsIn(block: CssNode): Declarations {
  const normal: Record<string, string> = {};
  const important: Record<string, string> = {};
  walk(block, {
    visit: 'Declaration',
    enter({ property, value, important: strong }) {
      putDeclaration(strong ? important : normal, property, generate(value).trim());
    },
  });
  return { normal, important };
}

/** `fill:red; stroke : blue` by property. Written out, as drawings hold a great many of these. */
export function readDeclarations(text: string): Declarations {
  if (text.includes('(') || text.includes('/*') || text.includes('!') || text.includes('"') || text.includes("'")) {
    return declarationsIn(parseCss(text, { context: 'declarationList', parseValue: false }));
  }
  const normal: Record<string, string> = {};
  for (const declaration of text.split(';')) {
    const colon = declaration.indexOf(':');
    if (colon > 0) putDeclaration(normal, declaration.slice(0, colon).trim(), declaration.slice(colon + 1).trim());
  }
  return { normal, important: nothing };
}

/** Every element from `root` down, in the order of the file. */
export function* everyElement(root: SvgElement): Generator<SvgElement> {
  const waiting = [root];
  for (let element = waiting.pop(); element; element = waiting.pop()) {
    yield element;
    for (let i = element.children.length - 1; i >= 0; i--) waiting.push(element.children[i]);
  }
}
