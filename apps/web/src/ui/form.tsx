import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import type { LengthUnit } from '@lambent/core/units';
import { type ComponentProps, useId } from 'react';
import {
  type Control,
  Controller,
  type DefaultValues,
  type FieldPathByValue,
  type FieldValues,
  type Resolver,
  type UseFormReturn,
  useForm,
} from 'react-hook-form';
import { said } from '../words/words.ts';
import { Choice } from './choice.tsx';
import { LengthField } from './length-field.tsx';

/**
 * A form whose fields are held to the checks of a class when it is sent: mostly the one that the server checks the same
 * request by, so that both say the same.
 */
export function useCheckedForm<Fields extends FieldValues>(
  checks: new () => Fields,
  defaultValues: NoInfer<DefaultValues<Fields>>,
): UseFormReturn<Fields> {
  const check = classValidatorResolver(checks, {}, { mode: 'sync' }) as unknown as Resolver<Fields>;
  return useForm<Fields>({ resolver: (fields, ...rest) => check(trimmed(fields), ...rest), defaultValues });
}

function trimmed<Fields extends FieldValues>(fields: Fields): Fields {
  const each = Object.entries(fields).map(([name, value]) => [name, typeof value === 'string' ? value.trim() : value]);
  return Object.fromEntries(each) as Fields;
}

interface Of<Fields extends FieldValues, Value> {
  control: Control<Fields>;
  name: FieldPathByValue<Fields, Value>;
  label: string;
}

/** A line of words of a form, with what is wrong with it. */
export function WordsInput<Fields extends FieldValues>({
  control,
  name,
  label,
  bare,
  ...input
}: Of<Fields, string | undefined> & { bare?: boolean } & Omit<ComponentProps<'input'>, 'name'>) {
  const id = useId();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState: { error } }) => (
        <div className="flex min-w-0 flex-1 flex-col gap-1">
          <label htmlFor={id} className={bare ? 'sr-only' : 'text-quiet'}>
            {label}
          </label>
          <input
            {...input}
            {...field}
            id={id}
            value={field.value ?? ''}
            aria-invalid={error !== undefined}
            aria-describedby={error ? `${id}-trouble` : undefined}
            autoComplete="off"
            className={`h-9 min-w-0 rounded-lg border bg-raised px-3 text-ink focus:border-petrol focus:outline-none ${error ? 'border-stop' : 'border-line'}`}
          />
          {error && (
            <p id={`${id}-trouble`} role="alert" className="text-[12px] text-stop">
              {error.message && said(error.message)}
            </p>
          )}
        </div>
      )}
    />
  );
}

/** A length of a form, in mm. */
export function LengthInput<Fields extends FieldValues>({
  control,
  name,
  label,
  unit,
}: Of<Fields, number> & { unit: LengthUnit }) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState: { error } }) => (
        <LengthField
          label={label}
          unit={unit}
          value={field.value}
          commit={field.onChange}
          fault={error?.message && said(error.message)}
        />
      )}
    />
  );
}

/** One of a list, in a form. */
export function ChoiceInput<Fields extends FieldValues, Value extends string>({
  control,
  name,
  ...choice
}: Of<Fields, Value> & Pick<ComponentProps<typeof Choice<Value>>, 'options' | 'empty' | 'look' | 'bare'>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState: { error } }) => (
        <div className="flex flex-col gap-1">
          <Choice {...choice} value={field.value || null} choose={field.onChange} />
          {error && (
            <p role="alert" className="text-[12px] text-stop">
              {error.message && said(error.message)}
            </p>
          )}
        </div>
      )}
    />
  );
}
