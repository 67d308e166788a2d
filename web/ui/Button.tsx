import type { ComponentProps, Ref } from 'react'
import { Button as BootstrapButton, type ButtonProps } from 'react-bootstrap'
import { Link, type LinkProps } from 'react-router'

/** `act`: the one next thing; `plain`: what may be done beside it; `quiet`: words that do something; `bare`: a record or a figure that can be pressed and has a look of its own. */
type Look = 'plain' | 'act' | 'quiet' | 'bare'

interface Shared {
  look?: Look
  /** `hand`: large enough for a wet thumb. */
  size?: 'hand'
}

const classOf = (size: 'hand' | undefined, className: string | undefined): string => [size && 'btn-hand', className].filter(Boolean).join(' ')

/** Every button of the interface. */
export function Button({ look = 'plain', size, className, ...props }: Shared & Omit<ButtonProps, 'variant' | 'size' | 'href'> & { ref?: Ref<HTMLButtonElement> }) {
  return <BootstrapButton variant={look} className={classOf(size, className)} {...props} />
}

/** A way to somewhere else that looks like a button: a screen, or with `href` a file. */
export function ButtonLink({ look = 'plain', size, className, ...props }: Shared & (LinkProps | (ComponentProps<'a'> & { href: string }))) {
  const shown = `btn btn-${look} ${classOf(size, className)}`
  return 'to' in props ? <Link className={shown} {...props} /> : <a className={shown} {...props} />
}
