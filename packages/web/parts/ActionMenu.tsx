import { Dropdown, type MenuProps } from 'antd';
import { useState, type ReactElement } from 'react';
import { useMenuFocus } from './use-menu-focus';

/** A line of the menu that is a link is followed by Enter as by a click. */
const followLink = (event: { type: string; currentTarget: EventTarget }) => {
  if (event.type === 'keydown' && event.currentTarget instanceof HTMLElement)
    event.currentTarget.querySelector('a')?.click();
};

/** A button that opens a menu of acts; its first line has the focus, and keys that came before it are obeyed. */
export function ActionMenu({
  menu,
  disabled = false,
  children,
}: {
  menu: MenuProps;
  disabled?: boolean;
  /** The button. */
  children: ReactElement;
}) {
  const [isOpen, setOpen] = useState(false);
  const popup = useMenuFocus(isOpen);
  return (
    <Dropdown
      trigger={['click']}
      autoFocus
      disabled={disabled}
      open={isOpen}
      onOpenChange={setOpen}
      popupRender={(lines) => <div ref={popup}>{lines}</div>}
      menu={{
        ...menu,
        onClick: (info) => {
          followLink(info.domEvent);
          menu.onClick?.(info);
        },
      }}
    >
      {children}
    </Dropdown>
  );
}
