/** What a style sheet is where nothing is drawn: every class by its own name. */
export default new Proxy({}, { get: (_, name) => String(name) });
