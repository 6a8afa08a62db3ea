import type { EntityManager } from 'typeorm';

/**
 * What a write may use. `save`, `remove` and `transaction` are left out: they begin and end transactions by a count of
 * their own, and the queue has begun one already.
 */
export type Writing = Pick<
  EntityManager,
  | 'count'
  | 'createQueryBuilder'
  | 'delete'
  | 'existsBy'
  | 'find'
  | 'findBy'
  | 'findOne'
  | 'findOneBy'
  | 'insert'
  | 'query'
  | 'update'
>;
