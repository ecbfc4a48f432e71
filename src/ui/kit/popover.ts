/** How a panel that opens beside its button looks. */
export const POPOVER = 'z-30 w-80 max-w-[92vw] rounded-xl border border-line bg-card p-4 shadow-lg [--anchor-gap:6px] focus:outline-none';
