/** Text as the fonts that every PDF reader has can show it: plain quotes, dashes and digits. */
export const plain = (text: string): string =>
  text
    .replace(/[⁴-⁶₁-₃]/g, (digit) => digit.normalize('NFKC'))
    .replace(/[“”]/g, '"')
    .replace(/[’‘]/g, "'")
    .replace(/[–—−]/g, '-')
    .replace(/…/g, '...')
    .replace(/♩/g, 'crotchet')
    .replace(/×/g, 'x');
