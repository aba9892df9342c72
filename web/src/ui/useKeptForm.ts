import { useActionState, useState } from 'react';
import { nanoid } from 'nanoid';
import { LOST } from './askDialog';

/** What a form shows after it was sent: the texts as typed, and what is wrong with them. */
interface Sent {
  readonly values: Readonly<Record<string, string>>;
  readonly errors: Readonly<Record<string, string>>;
}

/**
 * A form whose texts outlive a server that does not answer, and that is kept once however often it is
 * sent: `formKey` goes with it as a hidden field `key`.
 */
export function useKeptForm<State extends Sent>(
  action: (state: State, form: FormData) => Promise<State>,
  initial: State,
) {
  const [formKey] = useState(() => nanoid());
  const kept = async (state: State, form: FormData): Promise<State> => {
    try {
      return await action(state, form);
    } catch {
      const values = Object.fromEntries(
        [...form].flatMap(([name, value]) => (typeof value === 'string' ? [[name, value]] : [])),
      );
      return { ...state, values, errors: { form: LOST } };
    }
  };
  const [state, send, isSending] = useActionState<State, FormData>(
    kept as (state: Awaited<State>, form: FormData) => Promise<State>,
    initial as Awaited<State>,
  );
  return { state: state as State, send, isSending, formKey };
}
