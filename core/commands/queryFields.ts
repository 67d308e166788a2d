import { array, number, string } from 'yup'

// Fields of a query: words of an address that anybody can change, so what does not fit counts as not asked for.

/** A word, or null where none was given or it is longer than anything of ours. */
export const word = (longest: number) => string().nullable().default(null).transform((_: unknown, original: unknown) => (typeof original === 'string' && original !== '' && original.length <= longest ? original : null))

/** A whole number, cut to what there can be; the usual one where none was given. */
export const wholeUpTo = (most: number, usual: number) => number().default(usual).transform((_: unknown, original: unknown) => (/^\d{1,9}$/.test(String(original)) ? Math.min(Number(original), most) : usual))

/** A word that may be given several times: `?line=a&line=b`. */
export const words = (longest: number) => array().of(string().required()).default([]).transform((_: unknown, original: unknown) => [original].flat().filter((each): each is string => typeof each === 'string' && each !== '' && each.length <= longest))

/** A moment as epoch milliseconds; null where none was given, or it is none. */
export const moment = () => number().nullable().default(null).transform((_: unknown, original: unknown) => (/^\d{12,14}$/.test(String(original)) ? Number(original) : null))
