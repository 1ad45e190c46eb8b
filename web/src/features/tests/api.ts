import { del, get, post, put, type Schemas } from '@/shared/http/client'

export type TestPlan = Schemas['TestPlanView']
export type EndedTest = Schemas['EndedTestView']
export type TestResult = Schemas['TestResultView']
export type TestPlanWish = Schemas['TestPlanWish']
export type TestLine = Schemas['Waiting']

const tests = (bridge: string) => `/api/bridges/${encodeURIComponent(bridge)}/tests`
export const readTests = (bridge: string) => get<TestPlan[]>(tests(bridge))
export const readEndedTests = (bridge: string) => get<EndedTest[]>(`${tests(bridge)}/ended`)
export const planTest = (bridge: string, wish: TestPlanWish) =>
  post<TestPlan[]>(tests(bridge), wish)
export const changeTest = (bridge: string, id: number, wish: TestPlanWish) =>
  put<TestPlan[]>(`${tests(bridge)}/${id}`, wish)
export const endTest = (bridge: string, id: number, basedOn: number) =>
  del(`${tests(bridge)}/${id}?basedOn=${basedOn}`)
export const sayTested = (bridge: string, id: number, passed: boolean, words: string) =>
  post<TestPlan[]>(`${tests(bridge)}/${id}/results`, { passed, words })
export const runTest = (bridge: string, id: number) =>
  post<TestPlan[]>(`${tests(bridge)}/${id}/run`)
