import { answers, rowReader } from './rows'
import { runStreamed } from './streamed'

runStreamed({
  header: 'id,equation,status,percent_fat,body_density,fat_kg,fat_free_kg,see_percent,reason',
  readerOf: rowReader,
  answer: answers,
})
