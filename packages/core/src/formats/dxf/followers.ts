import type { Raw } from './groups.ts';

/** An entity with what follows it and belongs to it. */
export interface Entity {
  readonly raw: Raw;
  readonly followers: readonly Raw[];
}

/** Entities with the vertices and attributes that follow them. */
export function withFollowers(raws: readonly Raw[]): Entity[] {
  const out: { raw: Raw; followers: Raw[] }[] = [];
  let owner: Raw[] | null = null;
  for (const raw of raws) {
    if (raw.type === 'SEQEND') owner = null;
    else if (owner && (raw.type === 'VERTEX' || raw.type === 'ATTRIB')) owner.push(raw);
    else {
      const followers: Raw[] = [];
      out.push({ raw, followers });
      const follows = () => raw.groups.some(([code, value]) => code === 66 && value === '1');
      owner = raw.type === 'POLYLINE' || (raw.type === 'INSERT' && follows()) ? followers : null;
    }
  }
  return out;
}
