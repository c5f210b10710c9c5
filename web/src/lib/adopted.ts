/**
 * Lets a library make `<style>` elements at run time although the page's policy forbids them: while `work` runs, each
 * one that is made is a stylesheet of the document's own (a constructable one), which the policy allows. Gives what
 * takes them away.
 */
export function withAdoptedStyles(work: () => void): () => void {
  const made: CSSStyleSheet[] = [];
  const createElement = document.createElement.bind(document);
  document.createElement = (tag: string, options?: ElementCreationOptions) => {
    if (tag.toLowerCase() !== 'style') return createElement(tag, options);
    const sheet = new CSSStyleSheet();
    made.push(sheet);
    document.adoptedStyleSheets.push(sheet);
    const stand = createElement('template');
    let text = '';
    Object.defineProperty(stand, 'textContent', {
      get: () => text,
      set: (css: string | null) => sheet.replaceSync((text = css ?? '')),
    });
    return stand;
  };
  try {
    work();
  } finally {
    document.createElement = createElement;
  }
  return () => {
    document.adoptedStyleSheets = document.adoptedStyleSheets.filter((sheet) => !made.includes(sheet));
  };
}
