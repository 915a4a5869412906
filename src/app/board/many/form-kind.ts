/** What a form on many videos asks for. */
export type FormKind = 'set' | 'tags' | 'playlist' | 'series';
