/** Where the link of an invitation leads; its token stands behind. */
export const joinPath = '/join/';
