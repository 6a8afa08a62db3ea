/** How often the page of a sending that was sent in looks for news from the workshop, in ms. */
export const followMs = 20_000;
