/** A sound as an answer. */
export const wavAnswer = (wav: Buffer): Response =>
  new Response(new Uint8Array(wav), { headers: { 'content-type': 'audio/wav', 'content-length': String(wav.length) } });
