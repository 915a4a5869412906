/** A language tag in words: “en” is English. */
export const languageName = (tag: string) => new Intl.DisplayNames('en', { type: 'language' }).of(tag) ?? tag;
