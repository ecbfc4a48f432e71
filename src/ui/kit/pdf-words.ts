/** Text as the fonts that every PDF reader has can show it: plain quotes and dashes. */
export const plain = (text: string): string =>
  text.replace(/[“”]/g, '"').replace(/[’‘]/g, "'").replace(/[–—−]/g, '-').replace(/…/g, '...').replace(/♩/g, 'crotchet').replace(/×/g, 'x');
