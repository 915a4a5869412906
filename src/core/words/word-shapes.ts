import { eng } from 'stopword';

const COMMON = new Set(eng.map((word) => word.toLowerCase()));

/** A text as words are compared: compatibility forms one (UAX #15), small letters. */
export const plainText = (text: string): string => text.normalize('NFKC').toLocaleLowerCase('en');

/** The words of a text in small letters, without the signs between them. */
export const wordsIn = (text: string): string[] => plainText(text).match(/[\p{L}\p{M}\p{N}]+(?:[’'][\p{L}]+)?/gu) ?? [];

/** A word without the ending that most often sets two spellings apart. */
export const stemOf = (word: string): string => word.replace(/[’']s$/, '').replace(/(?:es|s)$/, '');

/** Whether a word is so common that nobody searches for it alone (the stopword package's English list). */
export const isCommon = (word: string): boolean => COMMON.has(word) || word.length < 2;

/** What makes two tags the same to those who search: their stems, run together. */
export const tagKey = (tag: string): string => wordsIn(tag).map(stemOf).join('');
