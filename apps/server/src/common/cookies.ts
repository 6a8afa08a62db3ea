/** The value of a cookie that a request brought; undefined where it brought none. @param header as `Cookie` has it */
export function cookieIn(header: string | undefined, name: string): string | undefined {
  return new RegExp(`(?:^|;\\s*)${name}=([\\w-]+)`).exec(header ?? '')?.[1];
}
