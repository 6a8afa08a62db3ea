/** Where the link of an invitation leads; its token stands behind. */
export const joinPath = '/join/';

/** Where anybody leaves a drawing, and follows it; the token of its link stands behind. */
export const dropOffPath = '/drop-off';

/** Where anybody reads how the shop wants drawings to be. */
export const howToDrawPath = '/how-to-draw';

/** Whether what is open is for everybody, whether they can sign in or not. */
export function isPublicPath(path = window.location.pathname): boolean {
  return (
    path.startsWith(joinPath) || path === dropOffPath || path === howToDrawPath || path.startsWith(`${dropOffPath}/`)
  );
}
