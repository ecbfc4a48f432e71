import { FormEvent, FormHTMLAttributes, useSyncExternalStore } from 'react';

const never = () => () => {};
/** Whether the page listens to hands yet: what a server drew is seen before. */
const useAlive = () =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );

type Props = Omit<FormHTMLAttributes<HTMLFormElement>, 'onSubmit'> & { onSubmit(event: FormEvent<HTMLFormElement>): unknown };

/**
 * A form that can be pressed once the page listens. Pressed before, a browser would send it by itself, with what was written in the
 * address, passwords too.
 */
export function Form({ children, onSubmit, ...rest }: Props) {
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void onSubmit(event);
      }}
      {...rest}
    >
      <fieldset disabled={!useAlive()} className="contents">
        {children}
      </fieldset>
    </form>
  );
}
