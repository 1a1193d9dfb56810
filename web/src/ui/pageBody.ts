/** The body of a whole page; scripts do not run in the frame that shows it, and what it would fetch from elsewhere is not fetched. */
export const pageBody = (html: string): string => /<body[^>]*>([\s\S]*)<\/body>/i.exec(html)?.[1] ?? html;
