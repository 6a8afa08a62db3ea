import { AttributeAction, type Selector, SelectorType } from 'css-what';
import type { SvgElement } from './xml.ts';

export type Ordinal = readonly [ids: number, classes: number, types: number];

/** Orders selectors by specificity, as CSS counts it. */
export function compare(a: Ordinal, b: Ordinal): number {
  return a[0] - b[0] || a[1] - b[1] || a[2] - b[2];
}

/** Whether a part of a selector joins two others. */
export function isCombinator({ type }: Selector): boolean {
  return (
    type === SelectorType.Descendant ||
    type === SelectorType.Child ||
    type === SelectorType.Adjacent ||
    type === SelectorType.Sibling
  );
}

const followedPseudos = new Set(['first-child', 'last-child', 'only-child', 'root', 'not', 'is', 'where']);

/** Whether a part of a selector is of a kind that is understood here. */
export function isFollowed(part: Selector): boolean {
  if (part.type === SelectorType.Pseudo) {
    const nested = Array.isArray(part.data) ? part.data.flat() : [];
    return followedPseudos.has(part.name) && nested.every(isFollowed);
  }
  return isCombinator(part) || ['tag', 'universal', 'attribute'].includes(part.type);
}

/** Specificity, from CSS Selectors 4, section 17. */
export function weightOf(selector: readonly Selector[]): Ordinal {
  let [ids, classes, types] = [0, 0, 0];
  for (const part of selector) {
    if (part.type === SelectorType.Tag) types++;
    else if (part.type === SelectorType.Attribute) {
      if (part.name === 'id' && part.action === AttributeAction.Equals) ids++;
      else classes++;
    } else if (part.type === SelectorType.Pseudo) {
      if (part.name === 'where') continue;
      if (Array.isArray(part.data)) {
        const [most = [0, 0, 0] as Ordinal] = part.data.map(weightOf).sort((a, b) => compare(b, a));
        ids += most[0];
        classes += most[1];
        types += most[2];
      } else classes++;
    }
  }
  return [ids, classes, types];
}

/** Whether an element matches a selector's parts up to `last`, read from the right. */
export function matches(element: SvgElement, selector: readonly Selector[], last: number): boolean {
  let i = last;
  for (; i >= 0 && !isCombinator(selector[i]); i--) if (!matchesOne(element, selector[i])) return false;
  if (i < 0) return true;
  const rest = (other: SvgElement) => matches(other, selector, i - 1);
  const { parent } = element;
  switch (selector[i].type) {
    case SelectorType.Child:
      return parent !== null && rest(parent);
    case SelectorType.Descendant: {
      for (let above = parent; above; above = above.parent) if (rest(above)) return true;
      return false;
    }
    default: {
      const before = parent ? parent.children.slice(0, parent.children.indexOf(element)) : [];
      const reached = selector[i].type === SelectorType.Adjacent ? before.slice(-1) : before;
      return reached.some(rest);
    }
  }
}

function matchesOne(element: SvgElement, part: Selector): boolean {
  switch (part.type) {
    case SelectorType.Tag:
      return part.name === element.name;
    case SelectorType.Attribute: {
      const value = element.attributes[part.name];
      if (value === undefined) return false;
      return matchesValue(value, part.action, part.value);
    }
    case SelectorType.Pseudo:
      return matchesPseudo(element, part.name, Array.isArray(part.data) ? part.data : []);
    default:
      return true;
  }
}

function matchesValue(value: string, action: AttributeAction, wanted: string): boolean {
  switch (action) {
    case AttributeAction.Exists:
      return true;
    case AttributeAction.Equals:
      return value === wanted;
    case AttributeAction.Element:
      return value.trim().split(/\s+/).includes(wanted);
    case AttributeAction.Start:
      return wanted !== '' && value.startsWith(wanted);
    case AttributeAction.End:
      return wanted !== '' && value.endsWith(wanted);
    case AttributeAction.Any:
      return wanted !== '' && value.includes(wanted);
    case AttributeAction.Hyphen:
      return value === wanted || value.startsWith(`${wanted}-`);
    default:
      return value !== wanted;
  }
}

function matchesPseudo(element: SvgElement, name: string, lists: readonly (readonly Selector[])[]): boolean {
  const siblings = element.parent?.children ?? [element];
  switch (name) {
    case 'first-child':
      return siblings[0] === element;
    case 'last-child':
      return siblings.at(-1) === element;
    case 'only-child':
      return siblings.length === 1;
    case 'root':
      return element.parent === null;
    case 'not':
      return !lists.some((list) => matches(element, list, list.length - 1));
    default:
      return lists.some((list) => matches(element, list, list.length - 1));
  }
}
