// All messages, by language. Apart from what says them, so that a page carries only the language it speaks.
import { ar } from './ar';
import { de } from './de';
import { en } from './en';
import { es } from './es';
import { fr } from './fr';
import { pl } from './pl';
import type { Language, Messages } from './words';

export const messages: Record<Language, Messages> = { en, de, fr, es, pl, ar };
