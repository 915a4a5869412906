/** The pattern of a title that nobody has written one for. */
export const PLAIN_TITLE = '{{title}}';

/** The template of a text that nobody has written one for; it has no blanks to leave open. */
export const PLAIN_TEMPLATE = '{{#summary}}{{summary}}{{/summary}}\n\n{{#links}}\n{{line}}\n{{/links}}';
