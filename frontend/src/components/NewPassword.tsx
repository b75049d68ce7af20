import type { ReactNode } from "react";

interface PasswordFieldProps<N extends string> {
  name: N;
  label: string;
  type: "password";
  autoComplete: string;
  help?: string;
}

interface NewPasswordProps<N extends string> {
  Field: (props: PasswordFieldProps<N>) => ReactNode;
  name: N;
  label?: string;
}

/** A password to be chosen, with the rule before it is broken. */
export function NewPassword<N extends string>({ Field, name, label = "Password" }: NewPasswordProps<N>) {
  return (
    <Field
      name={name}
      label={label}
      type="password"
      autoComplete="new-password"
      help="15 characters or more; three or four words are easiest to type."
    />
  );
}
