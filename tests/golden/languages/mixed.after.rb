# Hives.
class Hive
  def weigh(hive)
    during(hive) do
      # the first frame
      text = <<~EOT
      a #{hive}
        b
    EOT
      raw = "x
  y"

      log.record(text, # as is
             hive)
    end # done
    # why not
    if hive.a
      f(1)
    end
    g
    log.record(text, 1) if is_not(hive.a)
    return!hive.a || ((hive.a + 1) * -hive.b) ** 2 / (1 * 2)
  end
end
