import { chakra, Text } from "@chakra-ui/react";
import { type ComponentProps, type ReactNode, useEffect, useRef } from "react";
import {
  type DefaultValues,
  type FieldPath,
  type FieldValues,
  FormProvider,
  type UseFormReturn,
  useController,
  useForm,
  useFormContext,
  useFormState,
} from "react-hook-form";
import { Trouble } from "../api/client";
import { type Option, PickOne } from "../components/Pick";
import { SelectField } from "../components/SelectField";
import { TextField } from "../components/TextField";
import { keepDraft, savedDraft } from "../lib/draft";

/**
 * The one kit that all forms are made with. Every value is text, or one of several, as it was typed or picked:
 * the server reads amounts and answers by field, in one sentence that stands under the field at fault.
 */
export interface Kit<T extends FieldValues> {
  form: UseFormReturn<T>;
  /** Send what is typed; what the server would not have stands at its field, and everything typed stays. */
  save: () => Promise<void>;
  /** The draft on this device is gone: what was typed has been kept elsewhere. */
  forget: () => void;
}

interface KitOptions<T extends FieldValues> {
  start: T;
  /** Named, what is typed is kept on this device until `forget`. */
  draft?: string;
  /** `id` stays until it was taken: what is sent again after a lost answer is the same thing, not a second one. */
  send: (values: T, form: UseFormReturn<T>, id: string) => Promise<unknown>;
}

export function useKit<T extends FieldValues>({ start, draft, send }: KitOptions<T>): Kit<T> {
  const form = useForm<T>({
    defaultValues: {
      ...start,
      ...(draft === undefined ? {} : savedDraft<T>(draft)),
    } as DefaultValues<T>,
  });
  useEffect(() => {
    if (draft === undefined) return;
    return form.subscribe({
      formState: { values: true },
      callback: ({ values }) => keepDraft(draft, values),
    });
  }, [form, draft]);
  const id = useRef<string>(crypto.randomUUID());
  const save = form.handleSubmit(async (values) => {
    try {
      await send(values, form, id.current);
      id.current = crypto.randomUUID();
    } catch (error) {
      const { field, message } = troubleOf(error);
      form.setError("root.server", { type: field ?? "", message });
    }
  });
  return { form, save: () => save(), forget: () => draft !== undefined && keepDraft(draft, null) };
}

export function troubleOf(error: unknown): Trouble {
  if (error instanceof Trouble) return error;
  return new Trouble(error instanceof Error ? error.message : String(error), null, 0);
}

interface KitFormProps<T extends FieldValues> extends Omit<ComponentProps<"form">, "onSubmit"> {
  kit: Kit<T>;
  children: ReactNode;
}

/** The form element: Enter and the submit button save it. */
export function KitForm<T extends FieldValues>({ kit, children, ...rest }: KitFormProps<T>) {
  return (
    <FormProvider {...kit.form}>
      <form
        noValidate
        {...rest}
        onSubmit={(event) => {
          event.preventDefault();
          void kit.save();
        }}
      >
        {children}
      </form>
    </FormProvider>
  );
}

/** Fields inside another form, with nothing of their own to send: Enter in them sends nothing. */
export function KitPart<T extends FieldValues>({ kit, children }: { kit: Kit<T>; children: ReactNode }) {
  return (
    <FormProvider {...kit.form}>
      <chakra.div onKeyDown={(event) => event.key === "Enter" && event.preventDefault()}>
        {children}
      </chakra.div>
    </FormProvider>
  );
}

/** Whether it is being sent. */
export function useSaving(): boolean {
  return useFormState().isSubmitting;
}

/** What the server said of one of these fields of its own. */
export function useProblem(...fields: readonly string[]): string | null {
  const server = useFormState().errors.root?.server;
  const at = String(server?.type ?? "");
  const named = fields.some((field) => at === field || at.endsWith(`.${field}`));
  return named && at !== "" ? (server?.message ?? null) : null;
}

/** What went wrong, in words, once more at the form's end; `shown`: fields that say it themselves. */
export function FormProblem({ shown = [] }: { shown?: readonly string[] }) {
  const server = useFormState().errors.root?.server;
  const said = useProblem(...shown) !== null;
  if (server?.message === undefined || said) return null;
  return (
    <Text role="alert" color="accent" fontWeight="600">
      {server.message}
    </Text>
  );
}

interface Named<T extends FieldValues> {
  name: FieldPath<T>;
  /** What the server calls it, where that is not the name itself. */
  server?: string | readonly string[];
}

function serverNames(name: string, server: string | readonly string[] | undefined): readonly string[] {
  if (server === undefined) return [name.split(".").at(-1) ?? name, name];
  return typeof server === "string" ? [server] : server;
}

type FieldProps<T extends FieldValues> = Named<T> &
  Omit<ComponentProps<typeof TextField>, "name" | "value" | "onText"> & {
    /** Besides keeping what was typed. */
    onTyped?: (text: string) => void;
    /** What is wrong is said by who draws the field, where there is room for it. */
    saidElsewhere?: boolean;
  };

function Field<T extends FieldValues>(props: FieldProps<T>) {
  const { name, server, problem, onTyped, saidElsewhere = false, ...rest } = props;
  const { control } = useFormContext<T>();
  const { field } = useController({ name, control });
  const refused = useProblem(...serverNames(name, server));
  const wrong = problem ?? refused;
  return (
    <TextField
      {...rest}
      ref={field.ref}
      name={name.split(".").at(-1)}
      value={field.value ?? ""}
      onBlur={field.onBlur}
      problem={saidElsewhere ? undefined : wrong}
      invalid={rest.invalid || (saidElsewhere && Boolean(wrong))}
      onText={(text) => {
        field.onChange(text);
        onTyped?.(text);
      }}
    />
  );
}

/** A number with or without its unit, as text: a phone shows its number keys. */
function Amount<T extends FieldValues>(props: FieldProps<T>) {
  return <Field {...props} inputMode={props.inputMode ?? "decimal"} />;
}

interface ChoiceProps<T extends FieldValues> extends Named<T> {
  label: string;
  options: readonly Option<string>[];
  inline?: boolean;
  onPicked?: (value: string) => void;
}

/** One of several, in one tap. */
function Choice<T extends FieldValues>({ name, label, options, inline, onPicked }: ChoiceProps<T>) {
  const { control } = useFormContext<T>();
  const { field } = useController({ name, control });
  return (
    <PickOne
      label={label}
      options={options}
      inline={inline ?? false}
      value={field.value ?? null}
      onPick={(value) => {
        field.onChange(value);
        onPicked?.(value);
      }}
    />
  );
}

/** One of many, from a list; `""` stands for none. */
function Select<T extends FieldValues>({ name, server, label, options, onPicked }: ChoiceProps<T>) {
  const { control } = useFormContext<T>();
  const { field } = useController({ name, control });
  const problem = useProblem(...serverNames(name, server));
  return (
    <SelectField
      label={label}
      options={options}
      value={field.value ?? ""}
      problem={problem}
      onPick={(value) => {
        field.onChange(value);
        onPicked?.(value);
      }}
    />
  );
}

interface EitherProps<T extends FieldValues> extends Named<T> {
  label: string;
  /** Words for false and for true. */
  no: string;
  yes: string;
}

/** One of two, kept as false or true. */
function Either<T extends FieldValues>({ name, label, no, yes }: EitherProps<T>) {
  const { control } = useFormContext<T>();
  const { field } = useController({ name, control });
  return (
    <PickOne
      label={label}
      options={[
        { value: "no", label: no },
        { value: "yes", label: yes },
      ]}
      value={field.value ? "yes" : "no"}
      onPick={(value) => field.onChange(value === "yes")}
    />
  );
}

/** A box to check. */
function Check<T extends FieldValues>({ name, label }: Named<T> & { label: string }) {
  const { control } = useFormContext<T>();
  const { field } = useController({ name, control });
  return (
    <chakra.label display="flex" alignItems="center" gap="3" minH="44px">
      <input
        ref={field.ref}
        type="checkbox"
        checked={Boolean(field.value)}
        onChange={(event) => field.onChange(event.target.checked)}
      />
      {label}
    </chakra.label>
  );
}

interface Fields<T extends FieldValues> {
  Field: (props: FieldProps<T>) => ReactNode;
  Amount: (props: FieldProps<T>) => ReactNode;
  Choice: (props: ChoiceProps<T>) => ReactNode;
  Select: (props: ChoiceProps<T>) => ReactNode;
  Either: (props: EitherProps<T>) => ReactNode;
  Check: (props: Named<T> & { label: string }) => ReactNode;
}

/** The kit's fields for one form: their names are checked against what it holds. */
export function fieldsOf<T extends FieldValues>(): Fields<T> {
  return { Field, Amount, Choice, Select, Either, Check };
}
