// A menu of things that are done at once, each with what it means.
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

export interface Action {
  name: string;
  hint: string;
  act: () => void;
}

export function ActionMenu({
  name,
  disabled,
  actions,
  children,
}: {
  name: string;
  disabled: boolean;
  actions: readonly Action[];
  /** What stands below the actions. */
  children?: ReactNode;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="btn max-[700px]:px-2" disabled={disabled}>
        {name}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" side="top" align="end">
          {actions.map((action) => (
            <DropdownMenu.Item key={action.name} className="menu-item" onSelect={action.act}>
              {action.name} <span className="ml-auto text-[12px] text-ink-2">{action.hint}</span>
            </DropdownMenu.Item>
          ))}
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
