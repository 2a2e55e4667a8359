/** The header that says when an answer from the browser's own store was seen, UTC in ms since 1970. */
declare const SEEN_AT: string
/** What a page says to the worker that does not serve it yet. */
declare const CLAIM: string
/** What the worker says to a page that was shown what was kept, when the answer came after all. */
declare const LATE: string
/** A header of an answer that was asked for before the page asked for it again. */
declare const ASKED_BEFORE: string
