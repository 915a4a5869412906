import { v7 as newId } from 'uuid';

/** This window, so that undo never joins what two of them changed. A page that is loaded anew is another one. */
export const WINDOW_ID: string = newId();
