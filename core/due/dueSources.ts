import { meets, type Thing, type ThingName } from '../commands/things'

/** What due work comes from; a look at a tank makes none, but for its signs, which holds wait for. */
export const dueSources: readonly ThingName[] = ['house', 'limit', 'register', 'tank', 'crate', 'bag', 'claim', 'preparation', 'run', 'recheck', 'vessel', 'introduction', 'plan', 'chore', 'kitchen', 'probe', 'hold', 'regimen', 'staff']

/** With the due work that may come of it: for the device that did it, whose clock strip is not to change under a thumb a moment later. */
export const withDue = (touched: readonly Thing[]): readonly Thing[] => (meets(touched, dueSources) ? [...touched, 'due'] : touched)
