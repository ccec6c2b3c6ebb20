import { createContext, type FieldsetHTMLAttributes, useContext } from 'react';

const DisabledContext = createContext(false);

/** Whether the fields about are switched off, for controls that are no form fields to the browser. */
export const useIsDisabled = (): boolean => useContext(DisabledContext);

/** Fields that belong together, and are switched off together. */
export function FieldSet({ disabled = false, ...rest }: FieldsetHTMLAttributes<HTMLFieldSetElement>) {
  const isAround = useIsDisabled();
  return (
    <DisabledContext.Provider value={disabled || isAround}>
      <fieldset disabled={disabled} {...rest} />
    </DisabledContext.Provider>
  );
}
