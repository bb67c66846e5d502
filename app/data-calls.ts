import type {
  BackupStatus,
  DataJob,
  DataPage,
  Erased,
  ExportInput,
  ImportLine,
  RetentionDue,
  RetentionRules,
  TablePlanInput,
} from '#shared/schemas/data'
import { call } from '~/calls'

/** What Studio > Data asks of the server. As `~/calls`. */

export const data = {
  read: () => call<DataPage>('GET', '/api/data'),
  job: (id: string) => call<DataJob>('GET', `/api/data/jobs/${id}`),
  stop: (id: string) => call<DataJob>('DELETE', `/api/data/jobs/${id}`),
  fileOf: (id: string) => `/api/data/jobs/${id}/file`,
  bring: (file: File) =>
    call<{ id: string }>('POST', `/api/data/files?${new URLSearchParams({ name: file.name })}`, file, {
      headers: { 'content-type': 'application/octet-stream' },
    }),
  look: (id: string, plan: TablePlanInput | null) => call<DataJob>('POST', `/api/data/files/${id}/look`, { plan }),
  store: (id: string, importId: string, plan: TablePlanInput | null) =>
    call<DataJob>('POST', `/api/data/files/${id}/import`, { id: importId, plan }),
  takeBack: (id: string) => call<ImportLine[]>('POST', `/api/data/imports/${id}/take-back`, {}),
  takeOut: (what: ExportInput) => call<DataJob>('POST', '/api/data/exports', what),
  backUp: () => call<DataJob>('POST', '/api/data/backups', {}),
  acceptDamage: () => call<BackupStatus>('POST', '/api/data/damage/accept', {}),
  keep: (rules: RetentionRules) => call<RetentionDue>('PUT', '/api/studio/retention', rules),
  removeDue: (what: { clientIds: string[]; photos: boolean }) =>
    call<RetentionDue>('POST', '/api/data/retention', what),
  ownFile: (clientId: string, figuresReason = '') =>
    call<DataJob>('POST', `/api/clients/${clientId}/own-file`, { figuresReason }),
  erase: (clientId: string, name: string) => call<Erased>('DELETE', `/api/clients/${clientId}`, { name }),
}
