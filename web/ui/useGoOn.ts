import { useLocation, useNavigate } from 'react-router'

/** Goes on to the next page once an answer is there, unless the person has left for another page while waiting. */
export function useGoOn(): (to: string) => void {
  const navigate = useNavigate()
  const { pathname } = useLocation()
  return (to) => {
    if (window.location.pathname === pathname) void navigate(to)
  }
}
