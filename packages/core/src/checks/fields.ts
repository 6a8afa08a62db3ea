import type { Item } from '../document/item.ts';
import { burntItems, type Check, countOf, finding } from './finding.ts';

/** A field in a text: a name in braces, to be filled before it burns. */
const field = /\{\p{L}[\p{L}\p{N} _-]*\}/gu;

function fieldsIn({ shape }: Item): readonly string[] {
  return (shape.kind === 'text' && shape.text.words.match(field)) || [];
}

/** Texts that burn with a field in them that nothing fills. */
export const checkFields: Check = (prepared) => {
  const texts = burntItems(prepared).filter((item) => fieldsIn(item).length > 0);
  if (texts.length === 0) return [];
  const fields = new Set(texts.flatMap(fieldsIn));
  const named = [...fields].slice(0, 5).join(', ');
  const rest = fields.size > 5 ? ` and ${fields.size - 5} more` : '';
  const [what, are] = fields.size === 1 ? ['a field', 'it is'] : [`${fields.size} fields`, 'they are'];
  const message = `${countOf(texts.length, 'text holds', 'texts hold')} ${what} that nothing fills: ${named}${rest} would be burnt as ${are} written. Write what is meant.`;
  return [finding('field-unfilled', 'warns', message, texts)];
};
