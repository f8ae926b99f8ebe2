# Hives.
class Hive
  def weigh(hive)
    start(hive)
    # the first frame
    text = <<~EOT
      a #{hive}
        b
    EOT
    raw = "x
  y"

    record(text, # as is
           hive)
    finish(hive) # done
    if always
      # why not
      if hive.a
        f(1)
      end
      g
    end
    record text, 1 if !hive.a
    return!hive.a || times(hive.a + 1, -hive.b) ** 2 / times(1,2)
  end
end
