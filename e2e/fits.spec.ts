import { coachPages, expect, practiceLink, test } from './browser';

/** Texts that are cut off, stand out of their button or card, or lie on another; and how much wider than the window the page is. Runs in the page. */
const whatDoesntFit = () => {
  const SLACK_PX = 2;
  const BOXES = 'button, a.button, .button, .button-small, .button-main, .card, td, th, label, [role=dialog]';
  const wrong: string[] = [];
  const texts: { rect: DOMRect; element: Element; text: string }[] = [];
  const styleOf = (element: Element) => getComputedStyle(element);
  const ancestors = (element: Element | null): Element[] =>
    element && element !== document.body ? [element, ...ancestors(element.parentElement)] : [];
  /** Scrolled out of sight it is not wrong. */
  const seen = (rect: DOMRect, element: Element) =>
    ancestors(element).every((a) => {
      const { overflowX, overflowY } = styleOf(a);
      const box = a.getBoundingClientRect();
      return (
        !/auto|scroll/.test(overflowX + overflowY) ||
        (rect.top < box.bottom && rect.bottom > box.top && rect.left < box.right && rect.right > box.left)
      );
    });
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const element = node.parentElement!;
    const text = node.textContent!.trim().slice(0, 40);
    if (!text || element.closest('svg, script, style, option, .sr-only') || !element.checkVisibility({ visibilityProperty: true }))
      continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    const rects = [...range.getClientRects()].filter((r) => r.width > 1 && r.height > 1 && seen(r, element));
    const box = element.closest(BOXES)?.getBoundingClientRect();
    const cutBy = ancestors(element)
      .find((a) => /hidden|clip/.test(styleOf(a).overflowX))
      ?.getBoundingClientRect();
    for (const rect of rects) {
      if (box && (rect.right > box.right + SLACK_PX || rect.left < box.left - SLACK_PX)) wrong.push(`"${text}" stands out of its box`);
      if (cutBy && cutBy.width > SLACK_PX && rect.right > cutBy.right + SLACK_PX) wrong.push(`"${text}" is cut off`);
      texts.push({ rect, element, text });
    }
  }
  /** What lies over the page on purpose. */
  const over = (element: Element) => ancestors(element).find((a) => /fixed|sticky|absolute/.test(styleOf(a).position));
  texts.forEach((a, i) => {
    for (const b of texts.slice(i + 1)) {
      if (a.element.contains(b.element) || b.element.contains(a.element)) continue;
      const wide = Math.min(a.rect.right, b.rect.right) - Math.max(a.rect.left, b.rect.left);
      const high = Math.min(a.rect.bottom, b.rect.bottom) - Math.max(a.rect.top, b.rect.top);
      if (wide > 3 && high > 5 && over(a.element) === over(b.element)) wrong.push(`"${a.text}" lies on "${b.text}"`);
    }
  });
  // A choice cuts its text off by itself, and no range tells.
  const pen = document.createElement('canvas').getContext('2d')!;
  const ARROW_PX = 18;
  for (const select of document.querySelectorAll('select')) {
    const { fontWeight, fontSize, fontFamily, paddingLeft } = styleOf(select);
    pen.font = `${fontWeight} ${fontSize} ${fontFamily}`;
    const text = select.selectedOptions[0]?.text ?? '';
    if (select.checkVisibility() && pen.measureText(text).width + parseFloat(paddingLeft) + ARROW_PX > select.clientWidth + SLACK_PX)
      wrong.push(`"${text}" is cut off in its choice`);
  }
  const wider = document.documentElement.scrollWidth - innerWidth;
  return [...new Set(wider > 0 ? [...wrong, `the page is ${wider} px wider than the window`] : wrong)];
};

for (const [language, width, height] of [
  ['de', 390, 844],
  ['it', 390, 844],
  ['fr', 1280, 800],
] as const)
  test(`every page fits ${width} x ${height} in ${language}: no text is cut off, stands out of its box or lies on another`, async ({
    page,
    context,
    baseURL,
  }) => {
    test.setTimeout(240_000);
    const link = await practiceLink(page, 'Maren Quill');
    const sheet = new URL(page.url()).pathname;
    const { all } = await coachPages(page, 'Maren Quill');
    await context.addCookies([{ name: 'wendel-language', value: language, url: baseURL! }]);
    await page.setViewportSize({ width, height });
    const wrong: string[] = [];
    for (const path of [...all, sheet, link]) {
      await page.goto(path);
      await page.waitForLoadState('networkidle');
      wrong.push(...(await page.evaluate(whatDoesntFit)).map((what) => `${path}: ${what}`));
    }
    expect(wrong).toEqual([]);
  });
