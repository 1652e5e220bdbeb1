import { Choice, Choices } from './parts.js';

interface OneOfProps<T extends string> {
  readonly label: string;
  /** What each choice is called. */
  readonly options: Readonly<Record<T, string>>;
  readonly value: T;
  onChange(value: T): void;
}

/** A few choices side by side, exactly one taken. */
export function OneOf<T extends string>({ label, options, value, onChange }: OneOfProps<T>) {
  return (
    <Choices
      aria-label={label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[value]}
      onSelectionChange={(keys) => onChange([...keys][0] as T)}
    >
      {(Object.keys(options) as T[]).map((id) => (
        <Choice key={id} id={id}>
          {options[id]}
        </Choice>
      ))}
    </Choices>
  );
}
